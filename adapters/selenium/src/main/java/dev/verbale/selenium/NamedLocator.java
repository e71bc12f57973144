package dev.verbale.selenium;

import java.util.List;
import org.openqa.selenium.By;
import org.openqa.selenium.SearchContext;
import org.openqa.selenium.WebElement;

/**
 * A locator with a name for people, given once where the locator is defined:
 *
 * <pre>{@code
 * private static final By SWAP = NamedLocator.of("Swap", By.cssSelector("#swap button"));
 * }</pre>
 *
 * <p>Steps call what it finds by that name.
 *
 * @since 0.2.0
 */
public final class NamedLocator extends By {

    private final String name;
    private final By by;

    private NamedLocator(String name, By by) {
        this.name = name;
        this.by = by;
    }

    /** {@code by}, whose element people know as {@code name}. */
    public static By of(String name, By by) {
        return new NamedLocator(name, by);
    }

    String name() {
        return name;
    }

    By by() {
        return by;
    }

    @Override
    public WebElement findElement(SearchContext context) {
        return context.findElement(by);
    }

    @Override
    public List<WebElement> findElements(SearchContext context) {
        return context.findElements(by);
    }

    @Override
    public String toString() {
        return name + " (" + by + ")";
    }
}
