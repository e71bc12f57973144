package dev.verbale.selenium;

import dev.verbale.spi.Context;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.By;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.WebElement;

/**
 * What people call an element: the name of its {@link NamedLocator} locator, or else its accessible name, label or text. The
 * browser is asked once for a locator and a document.
 */
final class ElementNames {

    private static final int MAX = 500;

    /**
     * A short form of the accessible name computation (W3C, accname-1.2): label attributes, labels, then what is written.
     */
    private static final String NAME = """
            const e = arguments[0], text = n => (n ? (n.innerText || n.textContent || '') : '').trim().replace(/\\s+/g, ' ');
            const own = x => {
              const by = (x.getAttribute('aria-labelledby') || '').split(/\\s+/).map(i => text(document.getElementById(i)));
              const isButton = x.tagName === 'BUTTON' || (x.tagName === 'INPUT' && /^(submit|button|reset|image)$/.test(x.type));
              const labels = isButton ? [] : [...(x.labels || [])].map(l => {
                const c = l.cloneNode(true); c.querySelectorAll('select,input,textarea').forEach(i => i.remove());
                return c.textContent.trim().replace(/\\s+/g, ' ');
              });
              const button = x.tagName === 'INPUT' && /^(submit|button|reset)$/.test(x.type) ? x.value : '';
              return [by.join(' ').trim(), x.getAttribute('aria-label'), labels.join(' '), button, x.getAttribute('alt'),
                /^(INPUT|SELECT|TEXTAREA)$/.test(x.tagName) ? '' : text(x).slice(0, 60), x.getAttribute('title'),
                x.getAttribute('placeholder'), x.getAttribute('name')].find(n => n) || '';
            };
            const list = e.tagName === 'OPTION' ? e.closest('select') : null;
            return {name: own(e), tag: e.tagName.toLowerCase(), list: list ? own(list) : '',
              type: (e.getAttribute('type') || '').toLowerCase(),
              field: (e.getAttribute('name') || '') + ' ' + (e.id || '') + ' ' + (e.getAttribute('autocomplete') || '')};
            """;

    /**
     * What is known of an element.
     *
     * @param list the name of the list that it is an option of, or empty
     * @param locator how it was found, in short; empty where that is not known
     */
    record Known(String name, String tag, String list, boolean isSecret, String locator) {}

    private final Context recorder;
    private final WebDriver driver;
    private final DriverSession session;
    private final Map<WebElement, By> found = bounded();
    private final Map<String, Known> known = bounded();

    private volatile int documents;

    ElementNames(Context recorder, WebDriver driver, DriverSession session) {
        this.recorder = recorder;
        this.driver = driver;
        this.session = session;
    }

    private static <K, V> Map<K, V> bounded() {
        return Collections.synchronizedMap(new LinkedHashMap<>() {
            private static final long serialVersionUID = 1;

            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
                return size() > MAX;
            }
        });
    }

    void found(By by, WebElement element) {
        found.put(element, by);
    }

    /** Another document: the same locator may find something else there. */
    void forget() {
        known.clear();
    }

    private void forgetOtherDocuments() {
        ChromiumInspector chromium = session.chromium();
        int now = chromium == null ? 0 : chromium.documents();
        if (now != documents) forget();
        documents = now;
    }

    Known of(WebElement element) {
        By by = found.get(element);
        if (by == null) return ask(element, null);
        forgetOtherDocuments();
        Known before = known.get(by.toString());
        if (before != null && !before.tag().equals("option")) return before;
        Known now = ask(element, by);
        known.put(by.toString(), now);
        return now;
    }

    /** By what is known already: a look is too cheap to ask for a name. */
    String nameWithoutAsking(WebElement element) {
        By by = found.get(element);
        if (by == null) return "an element";
        Known before = known.get(by.toString());
        return "*" + (before == null ? name(by) : before.name()) + "*";
    }

    private Known ask(WebElement element, @Nullable By by) {
        String locator = by == null ? "" : locator(by);
        String given = by instanceof NamedLocator described ? described.name() : "";
        ChromiumInspector chromium = session.chromium();
        // An open dialog would be dismissed by the question, where nobody can tell that there is one.
        boolean maySpeak = chromium != null && !chromium.showsDialog();
        if (maySpeak && driver instanceof JavascriptExecutor browser) {
            try {
                if (browser.executeScript(NAME, element) instanceof Map<?, ?> properties) {
                    String name = given.isEmpty() ? String.valueOf(properties.get("name")) : given;
                    boolean secret = "password".equals(properties.get("type"))
                            || isSecret(name, locator, properties.get("field") + "");
                    if (name.isEmpty()) name = locator.isEmpty() ? String.valueOf(properties.get("tag")) : locator;
                    return new Known(name, properties.get("tag") + "", properties.get("list") + "", secret, locator);
                }
            } catch (WebDriverException gone) {
                // the call that this is asked for will say so
            }
        }
        String name = given.isEmpty() ? (locator.isEmpty() ? "an element" : locator) : given;
        return new Known(name, "", "", isSecret(name, locator, "") || isPassword(element), locator);
    }

    private boolean isSecret(String name, String locator, String field) {
        if (recorder.isSecretName(name)) return true;
        for (String word : (locator + " " + field).split("[^\\p{L}\\p{N}_-]+"))
            if (recorder.isSecretName(word)) return true;
        return false;
    }

    /** Asked of drivers that cannot be asked in another way: what is typed matters more than the time. */
    private boolean isPassword(WebElement element) {
        if (session.chromium() != null) return false;
        try {
            return "password".equalsIgnoreCase(element.getDomAttribute("type"));
        } catch (WebDriverException unknown) {
            return true;
        }
    }

    /** {@code By.cssSelector: #swap button} as {@code #swap button}. */
    static String locator(By by) {
        String text = (by instanceof NamedLocator described ? described.by() : by).toString();
        int colon = text.indexOf(": ");
        String how = colon < 0 ? "" : text.substring(0, colon);
        String what = colon < 0 ? text : text.substring(colon + 2);
        return switch (how) {
            case "By.id" -> "#" + what;
            case "By.name" -> "name=" + what;
            case "By.cssSelector", "By.xpath", "By.tagName" -> what;
            case "By.className" -> "." + what;
            case "By.linkText", "By.partialLinkText" -> "link " + what;
            default -> text;
        };
    }

    static String name(By by) {
        return by instanceof NamedLocator described ? described.name() : locator(by);
    }
}
