// Placeholder for unused parts of the stack: navigator headers, tabs, previews, site map, toasts. Saves 100 kB; using one by
// mistake renders nothing.
const Nothing = () => null;
const same = (value) => value;

exports.__esModule = true;
exports.default = Nothing;

// expo-router/build/views: Sitemap, Unmatched (Cravix has its own page), Toast
exports.Sitemap = Nothing;
exports.getNavOptions = () => ({});
exports.Unmatched = Nothing;
exports.Toast = Nothing;
exports.ToastWrapper = Nothing;

// expo-router/build/head: pages set their own titles
exports.Head = Object.assign(Nothing, { Provider: ({ children }) => children });

// expo-router/build/layouts/stack-utils and fork/native-stack: Cravix has no stack navigator
exports.createNativeStackNavigator = () => ({ Navigator: Nothing, Screen: Nothing });
exports.StackScreen = Nothing;
exports.StackHeader = Nothing;
exports.StackSearchBar = Nothing;
exports.StackTitle = Nothing;
exports.StackToolbar = Nothing;
exports.appendScreenStackPropsToOptions = same;
exports.validateStackPresentation = same;
exports.mapProtectedScreen = same;

// expo-router/build/native-tabs: no layout has native tabs
exports.NativeTabTrigger = Nothing;
exports.isNativeTabTrigger = () => false;
exports.convertTabPropsToOptions = same;

// expo-router/build/screensFeatureFlags: flags of a native library
exports.initScreensFeatureFlags = () => undefined;
