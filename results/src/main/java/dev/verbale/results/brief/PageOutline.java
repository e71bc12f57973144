package dev.verbale.results.brief;

import dev.verbale.results.Texts;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;

/** A page's source as what is to be read and used in it: what a screen reader would say, by the roles of HTML in ARIA. */
final class PageOutline {

    private static final int MAX = 60;
    private static final int LONGEST = 100;

    private static final Map<String, String> ROLES = Map.ofEntries(
            Map.entry("h1", "heading"),
            Map.entry("h2", "heading"),
            Map.entry("h3", "heading"),
            Map.entry("a", "link"),
            Map.entry("button", "button"),
            Map.entry("select", "choice"),
            Map.entry("textarea", "field"),
            Map.entry("input", "field"),
            Map.entry("form", "form"),
            Map.entry("table", "table"),
            Map.entry("dialog", "dialog"));

    private PageOutline() {}

    /** A line each, such as {@code button "Borrow" #borrow-now}. */
    static List<String> of(String source) {
        List<String> lines = new ArrayList<>();
        for (Element element : Jsoup.parse(source).body().select(String.join(",", ROLES.keySet()) + ",[role]")) {
            if (element.attr("type").equals("hidden")) continue;
            if (lines.size() == MAX) {
                lines.add("…");
                break;
            }
            lines.add(line(element));
        }
        return lines;
    }

    private static String line(Element element) {
        String role = element.attr("role");
        if (role.isEmpty()) role = ROLES.getOrDefault(element.tagName(), element.tagName());
        boolean isContainer = role.equals("form") || role.equals("table") || role.equals("dialog");
        String text = isContainer ? "" : element.text();
        if (text.isEmpty()) text = element.attr("aria-label");
        if (text.isEmpty() && element.tagName().equals("input")) text = element.attr("placeholder");
        var line = new StringBuilder(role);
        if (!text.isEmpty()) line.append(" \"").append(Texts.cut(text, LONGEST)).append('"');
        if (!element.id().isEmpty()) line.append(" #").append(element.id());
        else if (!element.attr("name").isEmpty())
            line.append(" [name=").append(element.attr("name")).append(']');
        return line.toString();
    }
}
