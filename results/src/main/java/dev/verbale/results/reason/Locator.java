package dev.verbale.results.reason;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The element of a page that a failure is about.
 *
 * @param text as the suite wrote it, as a CSS selector where that can be said of it
 * @param isThere whether the page had it: then something else was wrong with it
 */
record Locator(String text, boolean isThere) {

    private static final Pattern WEBDRIVER =
            Pattern.compile("\"method\":\"([^\"]+)\",\"selector\":\"((?:[^\"\\\\]|\\\\.)*+)\"");
    private static final Pattern BY = Pattern.compile(
            "By\\.(\\w+): ([^\\n]*?)(?=,? but\\b|, for |\\.\\.\\.|\\)?\\.?\\s*$|\\n|\\s+\\(tried| to be | is not )");
    private static final Pattern IN_PAGE = Pattern.compile(
            "(?:waiting for|Locator: )\\s*((?:locator|getBy\\w+|get_by_\\w+)\\(.*?\\)(?:\\.\\w+\\([^)]*\\))*+)(?=\\s|$| to be)");
    private static final Pattern MANY = Pattern.compile("strict mode violation: (.*?) resolved to \\d+ elements");
    private static final Pattern ATTRIBUTE = Pattern.compile("\\*?\\[(id|name)=['\"]?([\\w-]+)['\"]?]");
    private static final List<String> OF_BROWSERS =
            List.of("org.openqa.selenium.", "com.microsoft.playwright.", "com.codeborne.selenide.", "io.appium.");

    static @Nullable Locator of(String type, String message) {
        Matcher many = MANY.matcher(message);
        if (many.find()) return new Locator(many.group(1), true);
        if (OF_BROWSERS.stream().noneMatch(type::startsWith)
                && !message.contains("no such element")
                && !message.contains("Locator expected")) return null;
        Matcher inPage = IN_PAGE.matcher(message);
        if (inPage.find()) return new Locator(inPage.group(1), message.contains("locator resolved to"));
        boolean missing = type.endsWith("NoSuchElementException")
                || message.contains("no such element")
                || message.contains("visibility of element")
                || message.contains("presence of element");
        Matcher by = BY.matcher(message);
        if (by.find()) return new Locator(css(by.group(1), by.group(2).strip()), !missing);
        Matcher asked = WEBDRIVER.matcher(message);
        if (asked.find()) return new Locator(css(asked.group(1), asked.group(2)), !missing);
        return null;
    }

    /** Whether a driver of browsers threw it. */
    static boolean isOfBrowser(String type) {
        return OF_BROWSERS.stream().anyMatch(type::startsWith);
    }

    private static String css(String how, String what) {
        String selector = what.replace("\\\"", "\"").replace("\\\\", "\\");
        return switch (how.toLowerCase(Locale.ROOT)) {
            case "id" -> "#" + selector;
            case "name" -> "[name=" + selector + "]";
            case "classname", "class name" -> "." + selector;
            case "cssselector", "css selector" -> asFound(selector);
            case "tagname", "tag name", "xpath" -> selector;
            case "linktext", "link text" -> "link “" + selector + "”";
            default -> how + " " + selector;
        };
    }

    /** Drivers get an id or a name as a selector, and say that one. */
    private static String asFound(String selector) {
        Matcher attribute = ATTRIBUTE.matcher(selector);
        if (!attribute.matches()) return selector;
        return attribute.group(1).equals("id") ? "#" + attribute.group(2) : "[name=" + attribute.group(2) + "]";
    }

    /** Such as {@code No such element: #swap}. */
    String title(String type, String message) {
        String kind = type.substring(type.lastIndexOf('.') + 1);
        boolean waited = kind.startsWith("Timeout");
        if (!isThere) return (waited ? "Element did not appear: " : "No such element: ") + text;
        if (waited)
            return (message.contains("clickable") || message.contains("enabled")
                            ? "Element could not be used: "
                            : "Waited in vain for ")
                    + text;
        String words = kind.replaceAll("Exception$|Error$", "")
                .replaceAll("(?<=[a-z])(?=[A-Z])", " ")
                .toLowerCase(Locale.ROOT);
        return Character.toUpperCase(words.charAt(0)) + words.substring(1) + ": " + text;
    }
}
