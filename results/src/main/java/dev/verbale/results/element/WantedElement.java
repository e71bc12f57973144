package dev.verbale.results.element;

import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a locator says of the element that it looks for, whatever the language it is written in: CSS, XPath, or the calls of a driver.
 *
 * @param tags names of tags and roles, in small letters
 * @param names ids, names, classes and other attributes
 * @param texts what is to be read on it
 */
record WantedElement(Set<String> tags, Set<String> names, Set<String> texts) {

    private static final Pattern QUOTED = Pattern.compile("\"([^\"]{1,200})\"|'([^']{1,200})'|“([^”]{1,200})”");
    private static final Pattern CSS_NAME = Pattern.compile("[#.]([\\p{L}_][\\p{L}\\p{N}_-]*)");
    private static final Pattern ATTRIBUTE =
            Pattern.compile("\\[\\s*[\\w-]+[~|^$*]?=\\s*['\"]?([^'\"\\]]{1,200})['\"]?\\s*]");
    private static final Pattern TAG = Pattern.compile("(?:^|[\\s>+~/(,])([a-z][a-z0-9]*)(?=$|[\\s>+~#.:\\[/),])");
    /** In XPath, before a value. */
    private static final Pattern OF_ATTRIBUTE = Pattern.compile("@[\\w-]+\\s*[=,]\\s*$");

    private static final Pattern ROLE = Pattern.compile("AriaRole\\.([A-Z]+)");

    static WantedElement of(String locator) {
        Set<String> tags = new TreeSet<>();
        Set<String> names = new LinkedHashSet<>();
        Set<String> texts = new LinkedHashSet<>();
        boolean isCall = locator.startsWith("getBy") || locator.startsWith("get_by");
        boolean isLink = locator.startsWith("link ");
        boolean isPath = locator.startsWith("/") || locator.startsWith("(/");
        String bare = locator;
        for (Matcher quoted = QUOTED.matcher(locator); quoted.find(); ) {
            String value = quoted.group(1) != null
                    ? quoted.group(1)
                    : quoted.group(2) != null ? quoted.group(2) : quoted.group(3);
            boolean isOfAttribute = isPath
                    && OF_ATTRIBUTE
                            .matcher(locator.substring(0, quoted.start()))
                            .find();
            if (isCall || isLink || isPath && !isOfAttribute) texts.add(value);
            if (!isLink && (!isPath || isOfAttribute) && !locator.startsWith("getByText")) names.add(value);
        }
        if (isLink) tags.add("a");
        for (Matcher role = ROLE.matcher(locator); role.find(); )
            tags.add(role.group(1).toLowerCase(Locale.ROOT));
        if (isCall || isLink) return new WantedElement(tags, names, texts);
        if (locator.startsWith("locator("))
            bare = names.isEmpty() ? "" : names.iterator().next();
        String unquoted = QUOTED.matcher(bare).replaceAll(" ");
        for (Matcher name = CSS_NAME.matcher(unquoted); name.find(); ) names.add(name.group(1));
        for (Matcher value = ATTRIBUTE.matcher(bare); value.find(); ) names.add(value.group(1));
        for (Matcher tag = TAG.matcher(unquoted.toLowerCase(Locale.ROOT)); tag.find(); ) tags.add(tag.group(1));
        return new WantedElement(tags, names, texts);
    }
}
