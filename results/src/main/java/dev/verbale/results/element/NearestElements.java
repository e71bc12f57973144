package dev.verbale.results.element;

import dev.verbale.results.Texts;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.jspecify.annotations.Nullable;

/**
 * Finds in a page's source what comes nearest to an element that was not there: by its id, name, class, text and role, and by the
 * words of what the test was doing. A button that got another id is usually the first.
 */
final class NearestElements {

    private static final int MAX = 3;
    private static final int MAX_LOOKED_AT = 20_000;
    private static final int LONGEST_TEXT = 80;
    private static final double LEAST = 1.2;
    private static final double LEAST_ALIKE = 0.5;

    private static final String CANDIDATES =
            "a, button, input, select, textarea, label, option, summary, [id], [name], [role], [aria-label], [onclick], [data-testid], h1, h2, h3, [class]";

    private static final Set<String> USED = Set.of("a", "button", "input", "select", "textarea", "summary");

    private final WantedElement wanted;
    private final Set<String> context;
    private final @Nullable String textThen;

    private NearestElements(WantedElement wanted, Set<String> context, @Nullable String textThen) {
        this.textThen = textThen;
        this.wanted = wanted;
        this.context = context;
    }

    /**
     * The nearest first, at most three; none where nothing is near.
     *
     * @param source of the page, as HTML
     * @param locator as the suite wrote it
     * @param doing what the test was doing: names of its steps and its own
     */
    static List<NearElement> of(String source, String locator, String doing) {
        return of(source, locator, doing, null);
    }

    /** @param textThen what the element said that the locator found before; null where nobody knows */
    static List<NearElement> of(String source, String locator, String doing, @Nullable String textThen) {
        return new NearestElements(WantedElement.of(locator), Alike.stems(doing), textThen).in(source);
    }

    /** More than any likeness of names. */
    private static final double SAME_TEXT = 3;

    private record Scored(Element element, double score, String why) {}

    private List<NearElement> in(String source) {
        List<Scored> all = new ArrayList<>();
        for (Element element : Jsoup.parse(source).body().select(CANDIDATES)) {
            if (all.size() > MAX_LOOKED_AT) break;
            Scored scored = scored(element);
            if (scored.score() >= LEAST) all.add(scored);
        }
        all.sort((a, b) -> Double.compare(b.score(), a.score()));
        List<NearElement> nearest = new ArrayList<>();
        Set<String> selectors = new HashSet<>();
        for (Scored one : all) {
            if (nearest.size() == MAX) break;
            String selector = selector(one.element());
            if (!selectors.add(selector)) continue;
            nearest.add(new NearElement(selector, Texts.cut(text(one.element()), LONGEST_TEXT), one.why()));
        }
        return nearest;
    }

    private Scored scored(Element element) {
        List<String> why = new ArrayList<>();
        double score = 0;
        double name = 0;
        String nearestName = "";
        for (String want : wanted.names())
            for (String has : List.of(element.id(), element.attr("name"), element.attr("data-testid"))) {
                double alike = has.isEmpty() ? 0 : Alike.names(want, has);
                if (alike > name) {
                    name = alike;
                    nearestName = has;
                }
            }
        if (name >= LEAST_ALIKE) {
            score += 2.5 * name;
            why.add("is called " + nearestName);
        }
        double ofClass = 0;
        for (String want : wanted.names())
            for (String has : element.classNames()) ofClass = Math.max(ofClass, Alike.names(want, has));
        if (ofClass >= LEAST_ALIKE) {
            score += ofClass;
            why.add("has such a class");
        }
        String text = text(element);
        double read = 0;
        for (String want : wanted.texts()) read = Math.max(read, Alike.names(want, text));
        if (read >= LEAST_ALIKE) {
            score += 2 * read;
            why.add("says nearly the same");
        }
        if (textThen != null && text.equals(textThen)) {
            score += SAME_TEXT;
            why.add("has the text that it had in the good run");
        }
        boolean isUsed = USED.contains(element.tagName()) || element.hasAttr("role") || element.hasAttr("onclick");
        if (isUsed) score += 0.6;
        if (wanted.tags().contains(element.tagName()) || wanted.tags().contains(element.attr("role"))) score += 0.5;
        boolean isNamedSo = isInContext(element.id() + " " + element.attr("name"));
        boolean saysSo = text.length() <= LONGEST_TEXT && isInContext(text);
        if (isUsed && (isNamedSo || saysSo)) {
            score += isNamedSo && saysSo ? 1.2 : 0.6;
            why.add("is named after what the test does");
        }
        return new Scored(element, score, String.join(", ", why));
    }

    private boolean isInContext(String text) {
        return Alike.stems(text).stream().anyMatch(context::contains);
    }

    private static String text(Element element) {
        String shown = element.text();
        if (!shown.isEmpty()) return shown;
        for (String attribute : List.of("aria-label", "value", "placeholder", "title", "alt"))
            if (!element.attr(attribute).isEmpty()) return element.attr(attribute);
        return "";
    }

    private static String selector(Element element) {
        if (!element.id().isEmpty()) return element.tagName() + "#" + element.id();
        if (!element.attr("name").isEmpty()) return element.tagName() + "[name=" + element.attr("name") + "]";
        if (!element.attr("data-testid").isEmpty())
            return element.tagName() + "[data-testid=" + element.attr("data-testid") + "]";
        if (!element.classNames().isEmpty()) return element.tagName() + "." + String.join(".", element.classNames());
        for (Element around : element.parents())
            if (!around.id().isEmpty()) return "#" + around.id() + " " + element.tagName();
        return element.tagName();
    }
}
