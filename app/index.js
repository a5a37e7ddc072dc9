// Bundles the first page with the entry chunk, so that it is not loaded separately.
import "@expo/metro-runtime";
import "./device/read-early";
import "./app/_layout";
import "./app/(main)/_layout";
import "./app/(main)/index";
import "expo-router/entry";
