package dev.verbale.selenium;

import dev.verbale.MediaType;
import dev.verbale.browser.BrowserAdapter;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.AdapterStep;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.StepKind;
import java.io.ByteArrayInputStream;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.Alert;
import org.openqa.selenium.By;
import org.openqa.selenium.Cookie;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebElement;

/** Records what is done to a browser, as steps in words that a person reads. */
final class Actions implements TestFollower {

    private static final Set<String> DOCUMENT_CHANGES = Set.of(
            "get", "to", "back", "forward", "refresh", "window", "newWindow", "frame", "parentFrame", "defaultContent");

    private final AdapterRecorder recorder;
    private final ElementNames names;
    private final DriverSession session;
    private final boolean off;
    private final boolean everything;
    private final boolean frames;
    private final ThreadLocal<OfThread> threads = ThreadLocal.withInitial(OfThread::new);
    private volatile int lastImage;

    /** What this thread does to the browser now. */
    private static final class OfThread {
        @Nullable
        AdapterStep open;

        String name = "";
        final Waiting waiting = new Waiting();

        /** What was queried last, and what came of it where that was an exception. */
        String lastQuery = "";

        @Nullable
        Throwable unfound;
    }

    Actions(AdapterRecorder recorder, ElementNames names, DriverSession session) {
        this.recorder = recorder;
        this.names = names;
        this.session = session;
        String steps = recorder.setting(BrowserAdapter.STEPS);
        off = steps.equals("off") || !recorder.isRecording();
        everything = steps.equals("everything");
        frames = recorder.isOn(BrowserAdapter.FRAMES);
    }

    /** A call begins. */
    void begins(Object target, String method, Object[] arguments) {
        if (off || recorder.currentTest().id() == recorder.run().id()) return;
        OfThread mine = threads.get();
        String action = action(target, method, arguments);
        if (action == null) {
            String query = queried(target, method, arguments);
            if (query == null) return;
            mine.waiting.queryStarts(recorder, method + " " + query, query);
            mine.lastQuery = reading(method, query);
            mine.unfound = null;
            if (everything && !mine.waiting.isOpen()) begin(mine, reading(method, query));
            return;
        }
        mine.waiting.ends();
        mine.unfound = null;
        begin(mine, action);
    }

    private void begin(OfThread mine, String name) {
        mine.name = name;
        mine.open = recorder.startStep(StepKind.BROWSER, name);
    }

    /** The call returned. */
    void ended(Object target, String method, Object[] arguments, @Nullable Object result) {
        if (off) return;
        if (result instanceof WebElement element && arguments.length == 1 && arguments[0] instanceof By by)
            names.found(by, element);
        if (result instanceof List<?> many && arguments.length == 1 && arguments[0] instanceof By by)
            for (Object one : many) if (one instanceof WebElement element) names.found(by, element);
        OfThread mine = threads.get();
        mine.waiting.queryEnds(recorder);
        AdapterStep step = mine.open;
        if (step == null) return;
        mine.open = null;
        if (frames) image(mine.name);
        session.acted();
        step.passed();
        if (DOCUMENT_CHANGES.contains(method)) names.forget();
    }

    /** The call threw {@code failure}, which whoever called it may catch. */
    void threw(Throwable failure) {
        if (off) return;
        OfThread mine = threads.get();
        mine.waiting.queryEnds(recorder);
        AdapterStep step = mine.open;
        mine.open = null;
        if (step != null) step.failedWithoutEvidence(failure);
        else mine.unfound = failure;
    }

    /**
     * The test of this thread fails with {@code failure}. Where that is a wait that ran out, or a query that found nothing, the
     * step that says so is the one that failed: of a query nobody knew before that the test would not catch it.
     */
    @Override
    public void fails(Throwable failure) {
        OfThread mine = threads.get();
        Throwable unfound = mine.unfound;
        mine.unfound = null;
        boolean queried = unfound != null && isIn(unfound, failure);
        if (mine.waiting.isOpen() && (queried || isTimeout(failure))) mine.waiting.fails(failure);
        else if (queried) unfound(mine, failure);
    }

    private void unfound(OfThread mine, Throwable failure) {
        recorder.startOverlappingStep(StepKind.BROWSER, mine.lastQuery).failedWithoutEvidence(failure);
    }

    /** By its name: every library that waits has an exception of its own. */
    private static boolean isTimeout(Throwable failure) {
        return failure.getClass().getSimpleName().contains("Timeout");
    }

    private static boolean isIn(Throwable one, Throwable failure) {
        try {
            Throwable cause = failure;
            for (int depth = 0; cause != null && depth < 20; depth++, cause = cause.getCause())
                if (cause == one) return true;
        } catch (RuntimeException | Error broken) {
            // an exception class of the suite's own may do anything; then nobody knows
        }
        return false;
    }

    /** The test of this thread ends. */
    @Override
    public void testEnds() {
        threads.get().waiting.ends();
    }

    private void image(String name) {
        byte[] image = session.image();
        int hash = Arrays.hashCode(image);
        if (image.length == 0 || hash == lastImage) return;
        lastImage = hash;
        recorder.attach(
                recorder.currentScope(),
                "after " + name.replaceAll("\\*| \\[.*]$", ""),
                AttachmentKind.FRAMES,
                new ByteArrayInputStream(image),
                image[0] == (byte) 0x89 ? MediaType.PNG : MediaType.JPEG,
                recorder.now());
    }

    /** In words; null for what changes nothing. */
    private @Nullable String action(Object target, String method, Object[] arguments) {
        if (target instanceof WebElement element) return elementAction(element, method, arguments);
        if (target instanceof WebDriver.Navigation) return navigation(method, arguments);
        if (target instanceof WebDriver.TargetLocator) return switching(method, arguments);
        if (target instanceof Alert) return alert(method, arguments);
        if (target instanceof WebDriver.Window)
            return method.startsWith("get") ? null : "make the window " + sized(method, arguments);
        if (target instanceof WebDriver.Options) return cookie(method, arguments);
        if (!(target instanceof WebDriver)) return null;
        return switch (method) {
            case "get" -> "open " + arguments[0];
            case "close" -> "close the window";
            case "quit" -> "close the browser";
            case "perform" -> "move, press and type by input actions";
            default -> null;
        };
    }

    private @Nullable String elementAction(WebElement element, String method, Object[] arguments) {
        if (!Set.of("click", "submit", "sendKeys", "clear").contains(method)) return null;
        ElementNames.Known known = names.of(element);
        String found =
                known.locator().isEmpty() || known.locator().equals(known.name()) ? "" : " [" + known.locator() + "]";
        String name = "*" + known.name() + "*" + found;
        return switch (method) {
            case "click" ->
                known.list().isEmpty() ? "click " + name : "choose '" + known.name() + "' in *" + known.list() + "*";
            case "submit" -> "submit " + name;
            case "clear" -> "clear " + name;
            default -> Keystrokes.typed(recorder, arguments, known.isSecret()) + " into " + name;
        };
    }

    private static @Nullable String navigation(String method, Object[] arguments) {
        return switch (method) {
            case "to" -> "open " + arguments[0];
            case "back" -> "go back";
            case "forward" -> "go forward";
            case "refresh" -> "load the page again";
            default -> null;
        };
    }

    private static @Nullable String switching(String method, Object[] arguments) {
        return switch (method) {
            case "window" -> "go to window " + arguments[0];
            case "newWindow" -> "open a new " + String.valueOf(arguments[0]).toLowerCase(java.util.Locale.ROOT);
            case "frame" -> "go into frame" + (arguments[0] instanceof WebElement ? "" : " " + arguments[0]);
            case "parentFrame" -> "go out of the frame";
            case "defaultContent" -> "go out of all frames";
            default -> null;
        };
    }

    private static @Nullable String alert(String method, Object[] arguments) {
        return switch (method) {
            case "accept" -> "accept the dialog";
            case "dismiss" -> "dismiss the dialog";
            case "sendKeys" -> "type '" + arguments[0] + "' into the dialog";
            default -> null;
        };
    }

    private static @Nullable String cookie(String method, Object[] arguments) {
        if (method.equals("addCookie") && arguments[0] instanceof Cookie cookie)
            return "set cookie " + cookie.getName();
        if (method.equals("deleteAllCookies")) return "delete all cookies";
        return method.startsWith("deleteCookie") ? "delete a cookie" : null;
    }

    private static String sized(String method, Object[] arguments) {
        return arguments.length == 1 ? String.valueOf(arguments[0]) : method;
    }

    /** What a call that changes nothing asks about; null for calls that are no query. */
    private @Nullable String queried(Object target, String method, Object[] arguments) {
        if (arguments.length == 1 && arguments[0] instanceof By by) return "*" + ElementNames.name(by) + "*";
        if (target instanceof WebElement element && !method.equals("getScreenshotAs"))
            return names.nameWithoutAsking(element);
        if (target instanceof WebDriver && method.startsWith("get") && !method.equals("getScreenshotAs"))
            return method.equals("getTitle") ? "the title" : method.equals("getCurrentUrl") ? "the address" : null;
        if (target instanceof WebDriver.TargetLocator && method.equals("alert")) return "a dialog";
        return null;
    }

    private static String reading(String method, String query) {
        return switch (method) {
            case "findElement", "findElements" -> "find " + query;
            case "getText" -> "read the text of " + query;
            case "isDisplayed", "isEnabled", "isSelected" ->
                "see whether " + query + " " + method.replace("is", "is ").toLowerCase(java.util.Locale.ROOT);
            default -> "look at " + query;
        };
    }
}
