package dev.verbale.selenium;

import dev.verbale.MediaType;
import dev.verbale.browser.BrowserSnapshot;
import dev.verbale.vocabulary.AttachmentKind;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** What the windows of a Chromium show at one moment: all are asked at once, and no longer than until then. */
final class WindowSights {

    /** A page whose script is blocked by the dialog of another one never answers. */
    private static final long A_MOMENT = 500_000_000;

    private static final String DOCUMENT = "({url:location.href,title:document.title,"
            + "html:(document.doctype?'<!DOCTYPE '+document.doctype.name+'>\\n':'')+document.documentElement.outerHTML,"
            + "local:(()=>{try{return Object.keys(localStorage)}catch(e){return []}})(),"
            + "session:(()=>{try{return Object.keys(sessionStorage)}catch(e){return []}})()})";

    private final DevTools tools;
    private final String currentWindow;
    private final boolean fullPage;
    private long until;

    /** What one window was asked. */
    private record Asked(
            Target window,
            CompletableFuture<Map<String, ?>> document,
            CompletableFuture<Map<String, ?>> screenshot,
            List<CompletableFuture<Map<String, ?>>> frames) {}

    /** @param until by the clock of {@link System#nanoTime} */
    WindowSights(DevTools tools, String currentWindow, long until, boolean fullPage) {
        this.tools = tools;
        this.currentWindow = currentWindow;
        this.until = until;
        this.fullPage = fullPage;
    }

    /**
     * @param windows in the order in which a reader sees them
     * @param targets these, and the frames that have a process of their own
     */
    void addTo(BrowserSnapshot.Builder snapshot, List<Target> windows, Collection<Target> targets) {
        boolean isBlocked = false;
        for (Target window : windows) isBlocked |= showsDialog(window);
        if (isBlocked) until = Math.min(until, System.nanoTime() + A_MOMENT);
        List<Asked> asked = new ArrayList<>();
        for (Target window : windows) asked.add(asked(window, targets));
        for (Asked one : asked) add(snapshot, one);
    }

    /**
     * That a dialog was closed may be on its way. The browser, which answers this without the page, says it before whatever it
     * is asked afterwards.
     */
    private boolean showsDialog(Target window) {
        if (window.dialog == null) return false;
        try {
            within(tools.ask(window.sessionId, "Page.getNavigationHistory", Map.of()));
        } catch (ExecutionException | TimeoutException none) {
            return window.dialog != null;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
        return window.dialog != null;
    }

    private Asked asked(Target window, Collection<Target> targets) {
        if (window.dialog != null || window.crashed || tools.isClosed())
            return new Asked(window, new CompletableFuture<>(), new CompletableFuture<>(), List.of());
        List<CompletableFuture<Map<String, ?>>> frames = new ArrayList<>();
        CompletableFuture<Map<String, ?>> main = document(window, window.contexts.getOrDefault(window.targetId, 0L));
        for (Map.Entry<String, Long> context : window.contexts.entrySet())
            if (!context.getKey().equals(window.targetId)) frames.add(document(window, context.getValue()));
        if (isCurrent(window)) // whose frames those in other processes are, the protocol does not say plainly
        for (Target target : targets)
                if (!target.isWindow)
                    for (long context : target.contexts.values()) frames.add(document(target, context));
        var screenshot = tools.ask(
                window.sessionId,
                "Page.captureScreenshot",
                Map.of("format", "png", "captureBeyondViewport", fullPage, "optimizeForSpeed", true));
        return new Asked(window, main, screenshot, frames);
    }

    private void add(BrowserSnapshot.Builder snapshot, Asked asked) {
        Target window = asked.window();
        String of = isCurrent(window) ? "" : " of another window";
        String dialog = window.dialog;
        if (dialog != null) snapshot.log("The browser shows a dialog" + of + ": \"" + dialog + "\"");
        if (window.crashed) snapshot.log("The page" + of + " has crashed.");
        if (dialog != null || window.crashed || tools.isClosed()) {
            lastShown(snapshot, window, dialog != null ? "nothing else can be seen while a dialog is open" : "");
            return;
        }
        try {
            Map<String, ?> main = value(asked.document());
            snapshot.log("The browser was at " + main.get("url") + ", titled \"" + main.get("title") + "\"" + of
                    + storage(main));
            byte[] image = Base64.getDecoder().decode(DevTools.text(within(asked.screenshot()), "data"));
            snapshot.attach("screenshot" + of, AttachmentKind.SCREENSHOT, image, MediaType.PNG);
            source(snapshot, "page source" + of, main);
            for (var frame : asked.frames()) frame(snapshot, frame);
        } catch (TimeoutException late) {
            snapshot.log(
                    "The page" + of + " did not answer in time, as one that is busy does not: the rest is missing.");
            lastShown(snapshot, window, "");
        } catch (ExecutionException | RuntimeException none) {
            Throwable why = none.getCause() == null ? none : none.getCause();
            snapshot.log(
                    window.crashed
                            ? "The page" + of + " has crashed."
                            : "No more evidence from the page" + of + ": " + why.getMessage());
            lastShown(snapshot, window, "");
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            snapshot.log("The thread was interrupted, and the rest is missing.");
        }
    }

    private boolean isCurrent(Target window) {
        return window.targetId.equals(currentWindow);
    }

    private void lastShown(BrowserSnapshot.Builder snapshot, Target window, String why) {
        byte[] frame = window.lastFrame;
        if (!isCurrent(window) || frame == null) return;
        if (!why.isEmpty()) snapshot.log("The screenshot is the last one before, for " + why + ".");
        snapshot.attach("screenshot", AttachmentKind.SCREENSHOT, frame, MediaType.JPEG);
    }

    private static String storage(Map<String, ?> document) {
        var text = new StringBuilder();
        for (String kind : List.of("local", "session")) {
            if (document.get(kind) instanceof Collection<?> keys && !keys.isEmpty())
                text.append(". In its ").append(kind).append(" storage: ").append(String.join(", ", strings(keys)));
        }
        return text.toString();
    }

    private static List<String> strings(Collection<?> values) {
        return values.stream().map(String::valueOf).toList();
    }

    /** One that is removed or navigates just now has nothing to show, and costs the others nothing. */
    private void frame(BrowserSnapshot.Builder snapshot, CompletableFuture<Map<String, ?>> asked)
            throws InterruptedException, TimeoutException {
        try {
            Map<String, ?> document = value(asked);
            source(snapshot, "source of frame " + document.get("url"), document);
        } catch (ExecutionException gone) {
            // as above
        }
    }

    private static void source(BrowserSnapshot.Builder snapshot, String name, Map<String, ?> document) {
        String html = DevTools.text(document, "html");
        snapshot.attach(name, AttachmentKind.PAGE_SOURCE, html.getBytes(StandardCharsets.UTF_8), MediaType.HTML);
    }

    private CompletableFuture<Map<String, ?>> document(Target target, long context) {
        Map<String, Object> asked = new HashMap<>();
        asked.put("expression", DOCUMENT);
        asked.put("returnByValue", true);
        if (context != 0) asked.put("contextId", context);
        return tools.ask(target.sessionId, "Runtime.evaluate", asked);
    }

    private Map<String, ?> value(CompletableFuture<Map<String, ?>> asked)
            throws ExecutionException, InterruptedException, TimeoutException {
        return DevTools.map(DevTools.map(within(asked), "result"), "value");
    }

    private Map<String, ?> within(CompletableFuture<Map<String, ?>> answer)
            throws ExecutionException, InterruptedException, TimeoutException {
        return answer.get(Math.max(1, until - System.nanoTime()), TimeUnit.NANOSECONDS);
    }
}
