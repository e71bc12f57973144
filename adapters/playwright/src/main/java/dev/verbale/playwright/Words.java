package dev.verbale.playwright;

import dev.verbale.Recorder;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What calls on pages and locators are in words. */
final class Words {

    private static final Map<String, String> ON_PAGES = Map.of(
            "goBack", "go back",
            "goForward", "go forward",
            "reload", "load the page again",
            "close", "close the page",
            "bringToFront", "bring the page to the front",
            "setViewportSize", "change the size of the window");
    private static final Set<String> TYPING = Set.of("fill", "type", "pressSequentially");
    private static final Map<String, String> ON_ELEMENTS = Map.ofEntries(
            Map.entry("click", "click"),
            Map.entry("dblclick", "double-click"),
            Map.entry("tap", "tap"),
            Map.entry("hover", "point at"),
            Map.entry("check", "tick"),
            Map.entry("uncheck", "untick"),
            Map.entry("setChecked", "set"),
            Map.entry("clear", "clear"),
            Map.entry("focus", "focus"),
            Map.entry("selectText", "select the text of"),
            Map.entry("dragTo", "drag"),
            Map.entry("waitFor", "wait for"));

    private Words() {}

    static boolean isTyping(String method) {
        return TYPING.contains(method);
    }

    /** Of a call on a page; null for one that is no action. */
    static @Nullable String onPage(String method, Object[] arguments) {
        if (method.equals("navigate")) return "open " + arguments[0];
        if (method.startsWith("waitFor")) return waiting(method, arguments);
        if (ON_PAGES.containsKey(method)) return ON_PAGES.get(method);
        boolean bySelector = arguments.length > 0 && arguments[0] instanceof String;
        if (!bySelector) return null;
        Object[] rest = Arrays.copyOfRange(arguments, 1, arguments.length);
        return onElement(method, rest, String.valueOf(arguments[0]), true);
    }

    private static String waiting(String method, Object[] arguments) {
        String what = method.substring("waitFor".length()).replaceAll("(?<=[a-z])(?=[A-Z])", " ");
        String which = arguments.length > 0 && arguments[0] instanceof String text ? " " + text : "";
        return "wait for " + what.toLowerCase(Locale.ROOT) + which;
    }

    /** Of a call on what people know as {@code name}; null for one that is no action. */
    static @Nullable String onElement(String method, Object[] arguments, String name, boolean secret) {
        String first = arguments.length > 0 ? String.valueOf(arguments[0]) : "";
        if (isTyping(method)) return "type " + (secret ? Recorder.MASK : "'" + first + "'") + " into *" + name + "*";
        return switch (method) {
            case "press" -> "press " + first + " in *" + name + "*";
            case "selectOption" -> "choose '" + shown(arguments) + "' in *" + name + "*";
            case "setInputFiles" -> "choose the file " + shown(arguments) + " in *" + name + "*";
            default -> ON_ELEMENTS.containsKey(method) ? ON_ELEMENTS.get(method) + " *" + name + "*" : null;
        };
    }

    private static String shown(Object[] arguments) {
        if (arguments.length == 0 || arguments[0] == null) return "nothing";
        return arguments[0] instanceof Object[] many
                ? String.join(", ", Arrays.stream(many).map(String::valueOf).toList())
                : String.valueOf(arguments[0]);
    }

    /** What people know by a locator that a call gives. */
    static String name(String method, Object[] arguments, String outer) {
        if (arguments.length == 0)
            return method.equals("first") || method.equals("last") ? method + " " + outer : outer;
        return switch (method) {
            case "getByRole" -> byRole(arguments);
            case "nth" -> outer + " (" + arguments[0] + ")";
            case "filter", "and", "or" -> outer;
            default -> String.valueOf(arguments[0]);
        };
    }

    /** {@code getByRole(BUTTON, name "Swap")} is known as Swap, and without a name as button. */
    private static String byRole(Object[] arguments) {
        if (arguments.length > 1 && arguments[1] != null) {
            try {
                Object name = arguments[1].getClass().getField("name").get(arguments[1]);
                if (name != null) return name.toString();
            } catch (ReflectiveOperationException otherVersion) {
                // then the role has to do
            }
        }
        return String.valueOf(arguments[0]).toLowerCase(Locale.ROOT);
    }
}
