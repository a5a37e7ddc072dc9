// Stands for parts of the stack that Cravix never shows: a navigator's own headers, tabs, previews, site map, toasts. Whoever asks for one of
// them by mistake sees nothing, instead of 100 kB that nobody else ever sees.
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

// expo-router/build/head: titles are set by the page itself
exports.Head = Object.assign(Nothing, { Provider: ({ children }) => children });

// expo-router/build/layouts/stack-utils and fork/native-stack: Cravix has no stack of cards
exports.createNativeStackNavigator = () => ({ Navigator: Nothing, Screen: Nothing });
exports.StackScreen = Nothing;
exports.StackHeader = Nothing;
exports.StackSearchBar = Nothing;
exports.StackTitle = Nothing;
exports.StackToolbar = Nothing;
exports.appendScreenStackPropsToOptions = same;
exports.validateStackPresentation = same;
exports.mapProtectedScreen = same;

// expo-router/build/native-tabs: no child of a layout is one of them
exports.NativeTabTrigger = Nothing;
exports.isNativeTabTrigger = () => false;
exports.convertTabPropsToOptions = same;

// expo-router/build/screensFeatureFlags: flags of a native library
exports.initScreensFeatureFlags = () => undefined;
