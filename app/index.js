// The first page comes with the program itself and not after it: nothing is fetched, and nothing is waited for, between the two.
import "@expo/metro-runtime";
import "./device/log/read-early";
import "./app/_layout";
import "./app/(main)/_layout";
import "./app/(main)/index";
import "expo-router/entry";
