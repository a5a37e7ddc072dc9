// Registers only the components Cravix uses; the original list loads every component.
import { cssInterop } from "react-native-css-interop/dist/runtime/api";
import Pressable from "react-native-web/dist/exports/Pressable";
import ScrollView from "react-native-web/dist/exports/ScrollView";
import Text from "react-native-web/dist/exports/Text";
import TextInput from "react-native-web/dist/exports/TextInput";
import View from "react-native-web/dist/exports/View";

for (const component of [Pressable, Text, View]) cssInterop(component, { className: "style" });
cssInterop(ScrollView, { className: "style", contentContainerClassName: "contentContainerStyle" });
cssInterop(TextInput, { className: { target: "style", nativeStyleToProp: { textAlign: true } } });
