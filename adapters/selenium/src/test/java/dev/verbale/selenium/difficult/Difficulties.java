package dev.verbale.selenium.difficult;

import dev.verbale.browser.difficult.Greeter;
import dev.verbale.selenium.difficult.Difficulty.Deed;
import dev.verbale.selenium.difficult.Difficulty.Needs;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;
import org.openqa.selenium.By;
import org.openqa.selenium.Cookie;
import org.openqa.selenium.HasCapabilities;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.PrintsPage;
import org.openqa.selenium.TakesScreenshot;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.WindowType;
import org.openqa.selenium.chromium.HasCdp;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.interactions.WheelInput;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.print.PrintOptions;
import org.openqa.selenium.support.ui.ExpectedConditions;
import org.openqa.selenium.support.ui.Select;
import org.openqa.selenium.support.ui.WebDriverWait;

/** All that is known to be difficult for whoever stands beside a driver. */
final class Difficulties {

    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final List<Difficulty> all = new ArrayList<>();

    private Difficulties() {
        windows();
        frames();
        dialogs();
        navigation();
        elements();
        ends();
        others();
    }

    static List<Difficulty> all() {
        return new Difficulties().all;
    }

    private void add(String name, Deed deed) {
        add(name, Needs.ANY, deed);
    }

    private void add(String name, Needs needs, Deed deed) {
        all.add(new Difficulty(name, needs, deed));
    }

    private void windows() {
        for (String opener : List.of("tab", "popup", "link", "send", "empty", "severed"))
            add("a window opened by " + opener, (driver, site, seen) -> {
                driver.get(site.at("/windows"));
                String first = driver.getWindowHandle();
                seen.does("click", () -> click(driver, opener));
                seen.does("count", () -> windows(driver, 2));
                seen.fails();
                seen.does("go", () -> go(driver, first));
                seen.does("title", () -> titled(driver, it -> !it.isEmpty() || opener.equals("empty")));
                seen.fails();
                seen.does("find", () -> driver.findElements(By.tagName("h1")).size());
                seen.does("close", () -> done(driver::close));
                seen.does("title", driver::getTitle);
                seen.does("back", () -> done(() -> driver.switchTo().window(first)));
                seen.does("title", driver::getTitle);
                seen.does("count", () -> windows(driver, 1));
            });
        add("a window that closes itself", (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            seen.does("click", () -> click(driver, "brief"));
            seen.does("count", () -> windows(driver, 1));
            seen.fails();
            seen.does("title", driver::getTitle);
        });
        add("a window that its opener closes", (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            String first = driver.getWindowHandle();
            seen.does("click", () -> click(driver, "popup"));
            seen.does("count", () -> windows(driver, 2));
            seen.does("close", () -> click(driver, "close-it"));
            seen.does("count", () -> windows(driver, 1));
            seen.does("here", () -> driver.getWindowHandle().equals(first));
        });
        add("five windows at once", (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            String first = driver.getWindowHandle();
            seen.does("click", () -> click(driver, "many"));
            seen.does("count", () -> windows(driver, 6));
            seen.fails();
            for (String handle : driver.getWindowHandles()) {
                if (handle.equals(first)) continue;
                seen.does("go", () -> done(() -> driver.switchTo().window(handle)));
                seen.does("close", () -> done(driver::close));
            }
            seen.does("back", () -> done(() -> driver.switchTo().window(first)));
            seen.does("title", driver::getTitle);
        });
        add("a window that closes itself under the driver", (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            String first = driver.getWindowHandle();
            seen.does("click", () -> click(driver, "popup"));
            seen.does("count", () -> windows(driver, 2));
            seen.does("go", () -> go(driver, first));
            seen.does("click", () -> click(driver, "close"));
            seen.does("count", () -> windows(driver, 1));
            seen.fails();
            seen.does("title", driver::getTitle);
            seen.does("find", () -> driver.findElement(By.id("close")));
            seen.does("back", () -> done(() -> driver.switchTo().window(first)));
            seen.does("title", driver::getTitle);
        });
        add("windows that the driver opens", (driver, site, seen) -> {
            driver.get(site.at("/"));
            String first = driver.getWindowHandle();
            for (WindowType type : WindowType.values()) {
                seen.does("open", () -> done(() -> driver.switchTo().newWindow(type)));
                seen.does("load", () -> done(() -> driver.get(site.at("/other"))));
                seen.fails();
                seen.does("close", () -> done(driver::close));
                seen.does("back", () -> done(() -> driver.switchTo().window(first)));
            }
            seen.does("title", driver::getTitle);
            seen.does("no such", () -> driver.switchTo().window("no such"));
        });
        add("the size of a window", (driver, site, seen) -> {
            driver.get(site.at("/"));
            seen.does(
                    "size",
                    () -> done(() -> driver.manage().window().setSize(new org.openqa.selenium.Dimension(900, 700))));
            seen.does("size", () -> driver.manage().window().getSize());
            seen.does("place", () -> driver.manage().window().getPosition());
            seen.does("maximize", () -> done(() -> driver.manage().window().maximize()));
            seen.does("size", () -> driver.manage().window().getSize());
            seen.does(
                    "size",
                    () -> done(() -> driver.manage().window().setSize(new org.openqa.selenium.Dimension(1280, 943))));
        });
    }

    private void frames() {
        add("frames in frames", (driver, site, seen) -> {
            driver.get(site.at("/frames"));
            seen.does("in", () -> done(() -> driver.switchTo().frame("inner")));
            seen.does("text", () -> driver.findElement(By.id("o")).getText());
            seen.does("in", () -> done(() -> driver.switchTo().frame(0)));
            seen.does("text", () -> driver.findElement(By.id("i")).getText());
            seen.fails();
            seen.does("text", () -> driver.findElement(By.id("i")).getText());
            seen.does("out", () -> done(() -> driver.switchTo().parentFrame()));
            seen.does("text", () -> driver.findElement(By.id("o")).getText());
            seen.does("not here", () -> driver.findElement(By.id("i")));
            seen.does("out", () -> done(() -> driver.switchTo().defaultContent()));
            seen.does("no frame", () -> driver.switchTo().frame("no such"));
            seen.does("by element", () -> done(() -> driver.switchTo().frame(driver.findElement(By.id("gone")))));
            seen.does("text", () -> driver.findElement(By.id("g")).getText());
        });
        add("a frame of another site", (driver, site, seen) -> {
            driver.get(site.at("/cross"));
            seen.does("in", () -> done(() -> driver.switchTo().frame("far")));
            seen.does("text", () -> driver.findElement(By.id("i")).getText());
            seen.fails();
            seen.does("click", () -> click(driver, "drop"));
        });
        add("a frame that goes while the driver is in it", (driver, site, seen) -> {
            driver.get(site.at("/frames"));
            driver.switchTo().frame("inner").switchTo().frame("innermost");
            seen.does("drop", () -> click(driver, "drop"));
            seen.fails();
            seen.does("text", () -> driver.findElement(By.id("i")).getText());
            seen.does("out", () -> done(() -> driver.switchTo().defaultContent()));
            seen.does("title", driver::getTitle);
        });
    }

    private void dialogs() {
        add("a dialog", (driver, site, seen) -> {
            driver.get(site.at("/dialogs"));
            seen.does("none", () -> driver.switchTo().alert());
            seen.does("click", () -> click(driver, "alert"));
            seen.fails();
            seen.does("text", () -> driver.switchTo().alert().getText());
            seen.does("accept", () -> done(() -> driver.switchTo().alert().accept()));
            seen.does("title", driver::getTitle);
        });
        add("questions", (driver, site, seen) -> {
            driver.get(site.at("/dialogs"));
            seen.does("click", () -> click(driver, "confirm"));
            seen.does("dismiss", () -> done(() -> driver.switchTo().alert().dismiss()));
            seen.does("title", driver::getTitle);
            seen.does("click", () -> click(driver, "prompt"));
            seen.fails();
            seen.does("type", () -> done(() -> driver.switchTo().alert().sendKeys("three")));
            seen.does("accept", () -> done(() -> driver.switchTo().alert().accept()));
            seen.does("title", driver::getTitle);
        });
        add("a dialog that nobody expects", (driver, site, seen) -> {
            driver.get(site.at("/dialogs"));
            seen.does("click", () -> click(driver, "alert"));
            seen.does("title", driver::getTitle);
            seen.fails();
            seen.does("title", driver::getTitle);
            seen.does("click", () -> click(driver, "alert"));
            seen.does("find", () -> driver.findElement(By.id("confirm")));
            seen.does("find", () -> driver.findElement(By.id("confirm")).getText());
        });
        add("a dialog that comes later", (driver, site, seen) -> {
            driver.get(site.at("/dialogs"));
            seen.does("click", () -> click(driver, "later"));
            seen.does(
                    "wait",
                    () -> new WebDriverWait(driver, PATIENCE)
                            .until(ExpectedConditions.alertIsPresent())
                            .getText());
            seen.fails();
            seen.does("dismiss", () -> done(() -> driver.switchTo().alert().dismiss()));
            seen.does("title", driver::getTitle);
        });
        add("two dialogs, one behind the other", (driver, site, seen) -> {
            driver.get(site.at("/dialogs"));
            seen.does("click", () -> click(driver, "twice"));
            seen.does("accept", () -> done(() -> driver.switchTo().alert().accept()));
            seen.does(
                    "text",
                    () -> new WebDriverWait(driver, PATIENCE)
                            .until(ExpectedConditions.alertIsPresent())
                            .getText());
            seen.fails();
            seen.does("accept", () -> done(() -> driver.switchTo().alert().accept()));
        });
        add("a dialog while the page loads", (driver, site, seen) -> {
            seen.does("load", () -> done(() -> driver.get(site.at("/asks-at-once"))));
            seen.fails();
            seen.does("text", () -> driver.switchTo().alert().getText());
            seen.does("accept", () -> done(() -> driver.switchTo().alert().accept()));
            seen.does("title", driver::getTitle);
        });
        add("a dialog of a popup", (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            String first = driver.getWindowHandle();
            seen.does("click", () -> click(driver, "popup"));
            seen.does("count", () -> windows(driver, 2));
            seen.does("go", () -> go(driver, first));
            seen.does("title", () -> titled(driver, "Other"::equals));
            seen.does("click", () -> click(driver, "ask"));
            seen.fails();
            seen.does("text", () -> driver.switchTo().alert().getText());
            seen.does("accept", () -> done(() -> driver.switchTo().alert().accept()));
            seen.does("title", driver::getTitle);
        });
        for (String how : List.of("leave", "close", "refresh"))
            add("a page that holds back whoever would " + how, (driver, site, seen) -> {
                driver.get(site.at("/"));
                String first = driver.getWindowHandle();
                driver.switchTo().newWindow(WindowType.TAB);
                driver.get(site.at("/holds-back"));
                seen.does(
                        "type",
                        () -> done(() -> driver.findElement(By.id("field")).sendKeys("x")));
                seen.does(
                        how,
                        () -> done(() -> {
                            if (how.equals("leave")) driver.get(site.at("/"));
                            else if (how.equals("close")) driver.close();
                            else driver.navigate().refresh();
                        }));
                seen.fails();
                seen.does("dialog", () -> driver.switchTo().alert().getText());
                seen.does("count", () -> driver.getWindowHandles().size());
                seen.does("back", () -> done(() -> driver.switchTo().window(first)));
                seen.does("title", driver::getTitle);
            });
    }

    private void navigation() {
        add("back, forward and again", (driver, site, seen) -> {
            seen.does("open", () -> done(() -> driver.get(site.at("/"))));
            seen.does("open", () -> done(() -> driver.navigate().to(site.at("/other"))));
            seen.does("back", () -> done(() -> driver.navigate().back()));
            seen.does("title", driver::getTitle);
            seen.does("forward", () -> done(() -> driver.navigate().forward()));
            seen.does("again", () -> done(() -> driver.navigate().refresh()));
            seen.does("at", driver::getCurrentUrl);
        });
        add("redirects", (driver, site, seen) -> {
            seen.does("moved", () -> done(() -> driver.get(site.at("/moved"))));
            seen.does("at", driver::getCurrentUrl);
            seen.does("round", () -> done(() -> driver.get(site.at("/round"))));
            seen.fails();
            seen.does("nobody", () -> done(() -> driver.get("http://127.0.0.1:1/")));
            seen.does("odd", () -> done(() -> driver.get("no address")));
            seen.does("at", driver::getCurrentUrl);
        });
        add("addresses of other kinds", (driver, site, seen) -> {
            for (String address : List.of("about:blank", "data:text/html,<title>Data</title>", "chrome://version/")) {
                seen.does("open", () -> done(() -> driver.get(address)));
                seen.does("title", driver::getTitle);
                seen.fails();
            }
        });
        add("credentials", (driver, site, seen) -> {
            seen.does("without", () -> done(() -> driver.get(site.at("/private"))));
            seen.does("title", driver::getTitle);
            seen.does("with", () -> done(() -> driver.get(site.at("/private").replace("//", "//ada:watering@"))));
            seen.does("title", driver::getTitle);
            seen.does("at", driver::getCurrentUrl);
        });
        add("a page that loads again by itself", (driver, site, seen) -> {
            driver.get(site.at("/restless"));
            WebElement old = driver.findElement(By.id("old"));
            seen.does("click", () -> click(driver, "reload"));
            seen.does("stale", () -> new WebDriverWait(driver, PATIENCE).until(ExpectedConditions.stalenessOf(old)));
            seen.does(
                    "text",
                    () -> new WebDriverWait(driver, PATIENCE)
                            .until(ExpectedConditions.presenceOfElementLocated(By.id("old")))
                            .getText());
            seen.does("away", () -> click(driver, "away"));
            seen.does("title", () -> titled(driver, "Garden"::equals));
        });
        add("a page that is late", (driver, site, seen) -> {
            driver.manage().timeouts().pageLoadTimeout(Duration.ofMillis(300));
            seen.does("load", () -> done(() -> driver.get(site.at("/slow"))));
            seen.fails();
            seen.does("half", () -> done(() -> driver.get(site.at("/half"))));
            seen.does("text", () -> driver.findElement(By.id("there")).getText());
            driver.manage().timeouts().pageLoadTimeout(Duration.ofSeconds(300));
            seen.does("load", () -> done(() -> driver.get(site.at("/"))));
            seen.does("title", driver::getTitle);
        });
        for (Needs needs : List.of(Needs.EAGER, Needs.NONE))
            add("a strategy of loading: " + needs, needs, (driver, site, seen) -> {
                seen.does("half", () -> done(() -> driver.get(site.at("/half"))));
                seen.does(
                        "text",
                        () -> new WebDriverWait(driver, PATIENCE)
                                .until(ExpectedConditions.presenceOfElementLocated(By.id("there")))
                                .getText());
                seen.fails();
                seen.does("title", driver::getTitle);
                seen.does("load", () -> done(() -> driver.get(site.at("/windows"))));
                seen.does("title", () -> titled(driver, "Windows"::equals));
                seen.does("click", () -> click(driver, "popup"));
                seen.does("count", () -> windows(driver, 2));
            });
        add("files", (driver, site, seen) -> {
            driver.get(site.at("/files"));
            Path file = Files.writeString(Files.createTempFile("seeds", ".csv"), "kale,3\n");
            seen.does(
                    "no file",
                    () -> done(() -> driver.findElement(By.id("file")).sendKeys("/no/such/file")));
            seen.does(
                    "choose", () -> done(() -> driver.findElement(By.id("file")).sendKeys(file.toString())));
            seen.does("down", () -> click(driver, "load"));
            seen.fails();
            seen.does("send", () -> click(driver, "send"));
            seen.does("title", () -> titled(driver, "Sent"::equals));
            Files.delete(file);
        });
        add("a worker between page and server", (driver, site, seen) -> {
            seen.does("load", () -> done(() -> driver.get(site.at("/worker"))));
            seen.does("title", () -> titled(driver, "sown by the worker"::equals));
            seen.fails();
            seen.does("again", () -> done(() -> driver.navigate().refresh()));
            seen.does("title", () -> titled(driver, "sown by the worker"::equals));
        });
        add("a web socket", (driver, site, seen) -> {
            driver.get(site.at("/"));
            try (var greeter = new Greeter()) {
                ((JavascriptExecutor) driver)
                        .executeScript("const s=new WebSocket('ws://127.0.0.1:" + greeter.port()
                                + "/');s.onmessage=e=>document.title=e.data");
                seen.does("title", () -> titled(driver, "good morning"::equals));
                seen.fails();
            }
        });
    }

    private void elements() {
        add("elements that are gone", (driver, site, seen) -> {
            driver.get(site.at("/restless"));
            WebElement old = driver.findElement(By.id("old"));
            WebElement remove = driver.findElement(By.id("remove"));
            seen.does("renew", () -> click(driver, "renew"));
            seen.does("stale", old::getText);
            seen.fails();
            seen.does("stale", () -> done(old::click));
            seen.does("remove", () -> done(remove::click));
            seen.does("stale", remove::isDisplayed);
            seen.does("new", () -> driver.findElement(By.id("old")).getText());
        });
        add("elements that cannot be clicked", (driver, site, seen) -> {
            driver.get(site.at("/covered"));
            seen.does("covered", () -> click(driver, "under"));
            seen.does("hidden", () -> click(driver, "hidden"));
            seen.does("off", () -> click(driver, "off"));
            seen.fails();
            seen.does("off", () -> driver.findElement(By.id("off")).isEnabled());
            seen.does(
                    "type", () -> done(() -> driver.findElement(By.id("hidden")).sendKeys("x")));
            seen.does(
                    "clear", () -> done(() -> driver.findElement(By.id("under")).clear()));
        });
        add("queries that find nothing, or are none", (driver, site, seen) -> {
            driver.get(site.at("/"));
            seen.does("none", () -> driver.findElement(By.id("none")));
            seen.does("none", () -> driver.findElements(By.id("none")).size());
            seen.does("odd", () -> driver.findElement(By.cssSelector("[")));
            seen.does("odd", () -> driver.findElement(By.xpath("//*[")));
            seen.does("null", () -> driver.findElement(null));
            seen.does("inside", () -> driver.findElement(By.tagName("body")).findElement(By.id("none")));
            seen.does(
                    "wait",
                    () -> new WebDriverWait(driver, Duration.ofMillis(200))
                            .until(ExpectedConditions.presenceOfElementLocated(By.id("none"))));
            driver.manage().timeouts().implicitlyWait(Duration.ofMillis(200));
            seen.does("none", () -> driver.findElement(By.id("none")));
            seen.does("late", () -> click(driver, "late"));
            seen.does("ripe", () -> driver.findElement(By.id("ripe")).getText());
            driver.manage().timeouts().implicitlyWait(Duration.ZERO);
        });
        add("what elements say of themselves", (driver, site, seen) -> {
            driver.get(site.at("/covered"));
            WebElement list = driver.findElement(By.id("list"));
            seen.does("same", () -> list.equals(driver.findElement(By.id("list"))));
            seen.does(
                    "hash",
                    () -> list.hashCode() == driver.findElement(By.id("list")).hashCode());
            seen.does("other", () -> list.equals(driver.findElement(By.id("off"))));
            seen.does(
                    "shown",
                    () -> list.getTagName()
                            + list.getRect()
                            + list.getCssValue("display")
                            + list.getAttribute("id")
                            + list.getDomProperty("value")
                            + list.getAriaRole()
                            + list.getAccessibleName());
            seen.does("choose", () -> done(() -> new Select(list).selectByVisibleText("Friday")));
            seen.does("chosen", () -> new Select(list).getFirstSelectedOption().getText());
            seen.does("odd", () -> done(() -> new Select(list).selectByVisibleText("Sunday")));
            seen.does("screenshot", () -> list.getScreenshotAs(OutputType.BYTES));
            seen.does("screenshot", () -> ((TakesScreenshot) driver).getScreenshotAs(OutputType.BYTES));
            seen.does(
                    "print",
                    () -> ((PrintsPage) driver)
                                    .print(new PrintOptions())
                                    .getContent()
                                    .length()
                            > 100);
        });
        add("scripts and what they give", (driver, site, seen) -> {
            driver.get(site.at("/"));
            var scripts = (JavascriptExecutor) driver;
            WebElement name = driver.findElement(By.id("name"));
            seen.does("null", () -> scripts.executeScript("return null"));
            seen.does("number", () -> scripts.executeScript("return 7.5"));
            seen.does("list", () -> scripts.executeScript("return [1,'a',[true]]"));
            seen.does("map", () -> scripts.executeScript("return {a:{b:1}}"));
            seen.does("element", () -> ((WebElement) scripts.executeScript("return arguments[0]", name)).getTagName());
            seen.does(
                    "elements",
                    () -> ((List<?>) scripts.executeScript("return [arguments[0],arguments[0]]", name))
                            .stream().allMatch(name::equals));
            seen.does("in a list", () -> scripts.executeScript("return arguments[0][0].id", List.of(name)));
            seen.does("in a map", () -> scripts.executeScript("return arguments[0].a.id", Map.of("a", name)));
            seen.does("broken", () -> scripts.executeScript("throw new Error('no seeds')"));
            seen.does("odd", () -> scripts.executeScript("return ("));
            seen.fails();
            seen.does("later", () -> scripts.executeAsyncScript("arguments[arguments.length-1]('done')"));
            driver.manage().timeouts().scriptTimeout(Duration.ofMillis(200));
            seen.does("never", () -> scripts.executeAsyncScript("1"));
            driver.manage().timeouts().scriptTimeout(Duration.ofSeconds(30));
            seen.does("pinned", () -> scripts.executeScript(scripts.pin("return 3")));
        });
        add("mouse, keys and wheel", (driver, site, seen) -> {
            driver.get(site.at("/actions"));
            WebElement from = driver.findElement(By.id("from"));
            WebElement field = driver.findElement(By.id("field"));
            seen.does(
                    "over",
                    () -> done(() -> new Actions(driver).moveToElement(from).perform()));
            seen.does(
                    "twice",
                    () -> done(() -> new Actions(driver).doubleClick(from).perform()));
            seen.does(
                    "menu",
                    () -> done(() -> new Actions(driver).contextClick(from).perform()));
            seen.does(
                    "drag",
                    () -> done(() -> new Actions(driver)
                            .dragAndDrop(from, driver.findElement(By.id("to")))
                            .perform()));
            seen.fails();
            seen.does(
                    "keys",
                    () -> done(() -> new Actions(driver)
                            .click(field)
                            .keyDown(Keys.SHIFT)
                            .sendKeys("ab")
                            .keyUp(Keys.SHIFT)
                            .perform()));
            seen.does(
                    "wheel",
                    () -> done(() -> new Actions(driver)
                            .scrollFromOrigin(WheelInput.ScrollOrigin.fromElement(from), 0, 10)
                            .perform()));
            seen.does(
                    "out",
                    () -> done(() -> new Actions(driver).moveByOffset(9_999, 0).perform()));
            seen.does("value", () -> field.getDomProperty("value"));
            seen.does(
                    "heard",
                    () -> ((JavascriptExecutor) driver).executeScript("return said.filter(s=>s!='wheel').join()"));
        });
        add("shadow roots", (driver, site, seen) -> {
            driver.get(site.at("/shadow"));
            seen.does("none", () -> driver.findElement(By.id("in")));
            seen.does(
                    "in",
                    () -> driver.findElement(By.id("host"))
                            .getShadowRoot()
                            .findElement(By.cssSelector("#in"))
                            .getText());
            seen.does(
                    "click",
                    () -> done(() -> driver.findElement(By.id("host"))
                            .getShadowRoot()
                            .findElement(By.cssSelector("#in"))
                            .click()));
            seen.fails();
            seen.does("title", driver::getTitle);
            seen.does("no host", () -> driver.findElement(By.tagName("body")).getShadowRoot());
        });
    }

    private void ends() {
        add("a tab that crashes", Needs.OWN, (driver, site, seen) -> {
            driver.get(site.at("/"));
            driver.manage().timeouts().pageLoadTimeout(Duration.ofSeconds(3));
            seen.does("crash", () -> done(() -> driver.get("chrome://crash")));
            seen.fails();
            seen.does("title", driver::getTitle);
            seen.does("quit", () -> done(driver::quit));
        });
        add("a browser that has quit", Needs.OWN, (driver, site, seen) -> {
            driver.get(site.at("/"));
            seen.does("quit", () -> done(driver::quit));
            seen.fails();
            seen.does("title", driver::getTitle);
            seen.does("find", () -> driver.findElement(By.id("name")));
            seen.does("screenshot", () -> ((TakesScreenshot) driver).getScreenshotAs(OutputType.BYTES));
            seen.does("quit", () -> done(driver::quit));
        });
        add("the last window closed", Needs.OWN, (driver, site, seen) -> {
            driver.get(site.at("/"));
            seen.does("close", () -> done(driver::close));
            seen.fails();
            seen.does("title", driver::getTitle);
            seen.does("count", () -> driver.getWindowHandles().size());
            seen.does("quit", () -> done(driver::quit));
        });
        add("a browser that goes by itself", Needs.OWN, (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            seen.does("away", () -> away(driver));
            seen.fails();
            seen.does("quit", () -> done(driver::quit));
        });
        add("a dialog at the end", Needs.OWN, (driver, site, seen) -> {
            driver.get(site.at("/dialogs"));
            seen.does("click", () -> click(driver, "alert"));
            seen.fails();
            seen.does("quit", () -> done(driver::quit));
        });
        add("a popup at the end", Needs.OWN, (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            seen.does("click", () -> click(driver, "popup"));
            seen.does("quit", () -> done(driver::quit));
            seen.fails();
        });
        add("a browser on the other side of a wire", Needs.REMOTE, (driver, site, seen) -> {
            driver.get(site.at("/windows"));
            String first = driver.getWindowHandle();
            seen.does("click", () -> click(driver, "popup"));
            seen.does("count", () -> windows(driver, 2));
            seen.fails();
            seen.does("go", () -> go(driver, first));
            seen.does("title", () -> titled(driver, "Other"::equals));
            seen.does("click", () -> click(driver, "ask"));
            seen.fails();
            seen.does("text", () -> driver.switchTo().alert().getText());
            seen.does("accept", () -> done(() -> driver.switchTo().alert().accept()));
            seen.does("close", () -> done(driver::close));
            seen.fails();
            seen.does("title", driver::getTitle);
            seen.does("quit", () -> done(driver::quit));
        });
    }

    private void others() {
        add("cookies", (driver, site, seen) -> {
            driver.get(site.at("/"));
            seen.does("set", () -> done(() -> driver.manage().addCookie(new Cookie("plot", "7"))));
            seen.does("get", () -> driver.manage().getCookieNamed("plot").getValue());
            seen.does("none", () -> driver.manage().getCookieNamed("none"));
            seen.does(
                    "elsewhere",
                    () -> done(() -> driver.manage().addCookie(new Cookie("a", "b", "orto.example", "/", null))));
            seen.does("delete", () -> done(() -> driver.manage().deleteAllCookies()));
            seen.does("left", () -> driver.manage().getCookies().size());
            seen.does(
                    "storage",
                    () -> ((JavascriptExecutor) driver).executeScript("localStorage.a=1;return localStorage.length"));
        });
        add("what a driver is asked beside", (driver, site, seen) -> {
            driver.get(site.at("/"));
            seen.does("kind", () -> ((HasCapabilities) driver).getCapabilities().getBrowserName());
            seen.does(
                    "logs", () -> driver.manage().logs().getAvailableLogTypes().contains(LogType.BROWSER));
            seen.does(
                    "log",
                    () -> driver.manage().logs().get(LogType.BROWSER).getAll().size());
            seen.does(
                    "protocol",
                    () -> ((HasCdp) driver)
                            .executeCdpCommand("Runtime.evaluate", Map.of("expression", "1+1"))
                            .get("result"));
            seen.does("odd", () -> ((HasCdp) driver).executeCdpCommand("No.such", Map.of()));
            seen.does(
                    "source",
                    () -> Objects.requireNonNull(driver.getPageSource()).length());
            seen.does("null", () -> done(() -> driver.get(null)));
            seen.does("timeouts", () -> driver.manage().timeouts().getScriptTimeout());
            seen.does("itself", () -> driver.equals(driver) && driver.hashCode() == driver.hashCode());
            seen.does("among", () -> new LinkedHashMap<>(Map.of(driver, 1)).get(driver));
        });
    }

    /** Of a command that gives nothing. */
    private static String done(Runnable command) {
        command.run();
        return "done";
    }

    /** The browser is told to go; a bare one too answers now in time and now too late. */
    private static String away(WebDriver driver) {
        try {
            ((HasCdp) driver).executeCdpCommand("Browser.close", Map.of());
        } catch (WebDriverException late) {
            // it is on its way
        }
        return "done";
    }

    private static String click(WebDriver driver, String id) {
        driver.findElement(By.id(id)).click();
        return "done";
    }

    /** How many windows there are, once they are {@code expected}, or when nobody waits any longer. */
    private static int windows(WebDriver driver, int expected) {
        return new WebDriverWait(driver, PATIENCE).until(ExpectedConditions.numberOfWindowsToBe(expected))
                ? expected
                : -1;
    }

    /** Into a window that is not the {@code first}. */
    private static String go(WebDriver driver, String first) {
        for (String handle : driver.getWindowHandles())
            if (!handle.equals(first)) {
                driver.switchTo().window(handle);
                return "done";
            }
        return "there is none";
    }

    /** The title, once it is as {@code expected}. */
    private static String titled(WebDriver driver, Predicate<String> expected) {
        new WebDriverWait(driver, PATIENCE).until(one -> expected.test(Objects.requireNonNullElse(one.getTitle(), "")));
        return String.valueOf(driver.getTitle());
    }
}
