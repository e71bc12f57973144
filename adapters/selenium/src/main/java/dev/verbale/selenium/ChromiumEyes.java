package dev.verbale.selenium;

import dev.verbale.browser.BrowserExchanges;
import dev.verbale.browser.BrowserLog;
import dev.verbale.browser.Look;
import dev.verbale.event.PaperKept;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.video.Camera;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * Looks at a Chromium through its debugging address: all windows and frames, what the console said and the network
 * brought, and the film. The driver, its current window and an open dialog stay as they are.
 */
final class ChromiumEyes implements Eyes, DevTools.Events {

    private static final long FRAME_PAUSE_MILLIS =
            400; // acknowledging later costs the browser less than each frame does
    private static final long A_MOMENT = 250_000_000;
    private static final String DOCUMENT = "({url:location.href,title:document.title,"
            + "html:(document.doctype?'<!DOCTYPE '+document.doctype.name+'>\\n':'')+document.documentElement.outerHTML,"
            + "local:(()=>{try{return Object.keys(localStorage)}catch(e){return []}})(),"
            + "session:(()=>{try{return Object.keys(sessionStorage)}catch(e){return []}})()})";

    private final Map<String, Tab> tabs = new ConcurrentHashMap<>();
    private final BrowserLog log;
    private final Heard heard;
    private final BrowserExchanges exchanges;
    private final HeardExchanges heardExchanges;
    private final Camera camera;
    private final DevTools tools;
    /** How many documents there were so far, in any window. */
    private final AtomicInteger documents = new AtomicInteger();

    private volatile String currentWindow = "";
    private volatile byte @Nullable [] lastFrame;

    private ChromiumEyes(Recorder recorder, Camera camera, URI address) {
        log = new BrowserLog(recorder);
        heard = new Heard(log);
        this.camera = camera;
        exchanges = new BrowserExchanges(recorder, "Chromium");
        tools = DevTools.connect(address, this);
        heardExchanges = new HeardExchanges(exchanges, tools);
    }

    /** @throws RuntimeException where the browser does not answer there */
    static ChromiumEyes open(Recorder recorder, Camera camera, URI address, Duration most) {
        var eyes = new ChromiumEyes(recorder, camera, address);
        var attach = Map.of("autoAttach", true, "waitForDebuggerOnStart", false, "flatten", true);
        eyes.tools
                .ask("", "Target.setAutoAttach", attach)
                .orTimeout(most.toMillis(), TimeUnit.MILLISECONDS)
                .join();
        return eyes;
    }

    /** The window that the driver is in, by its handle. */
    void currentWindow(String handle) {
        currentWindow = handle;
    }

    /** What the page asks of its server from now on belongs to {@code scope}; to nobody where it is null. */
    void belongTo(@Nullable Scope scope) {
        exchanges.belongTo(scope);
    }

    void forgetBefore(long at) {
        log.forgetBefore(at);
    }

    void close() {
        tools.close();
    }

    int documents() {
        return documents.get();
    }

    boolean showsDialog() {
        return tabs.values().stream().anyMatch(tab -> tab.dialog != null);
    }

    @Override
    public void closed() {}

    @Override
    public void event(String session, String method, Map<String, ?> event) {
        Tab tab = tabs.get(session);
        switch (method) {
            case "Target.attachedToTarget" -> attached(event);
            case "Target.detachedFromTarget" -> tabs.remove(DevTools.text(event, "sessionId"));
            case "Page.screencastFrame" -> frame(session, event);
            default -> {
                if (method.equals("Runtime.executionContextsCleared")) documents.incrementAndGet();
                heard.event(method, event);
                heardExchanges.event(session, method, event);
                if (tab != null) changed(tab, method, event);
            }
        }
    }

    private void changed(Tab tab, String method, Map<String, ?> event) {
        switch (method) {
            case "Page.javascriptDialogOpening" -> tab.dialog = DevTools.text(event, "message");
            case "Page.javascriptDialogClosed" -> tab.dialog = null;
            case "Inspector.targetCrashed" -> {
                tab.crashed = true;
                tools.forsake(tab.session, "it has crashed");
            }
            case "Runtime.executionContextsCleared" -> tab.contexts.clear();
            case "Runtime.executionContextCreated" -> {
                Map<String, ?> context = DevTools.map(event, "context");
                Map<String, ?> about = DevTools.map(context, "auxData");
                if (Boolean.TRUE.equals(about.get("isDefault")))
                    tab.contexts.put(DevTools.text(about, "frameId"), DevTools.number(context, "id"));
            }
            case "Runtime.executionContextDestroyed" ->
                tab.contexts.values().remove(DevTools.number(event, "executionContextId"));
            default -> {}
        }
    }

    private void attached(Map<String, ?> event) {
        Map<String, ?> target = DevTools.map(event, "targetInfo");
        String type = DevTools.text(target, "type");
        if (!type.equals("page") && !type.equals("iframe")) return;
        var tab = new Tab(DevTools.text(event, "sessionId"), DevTools.text(target, "targetId"), type.equals("page"));
        tabs.put(tab.session, tab);
        for (String domain : List.of("Page", "Runtime", "Log", "Network", "Inspector"))
            tools.ask(tab.session, domain + ".enable", Map.of());
        tools.ask(
                tab.session,
                "Target.setAutoAttach",
                Map.of("autoAttach", true, "waitForDebuggerOnStart", false, "flatten", true));
        if (tab.isWindow && camera.films())
            tools.ask(
                    tab.session,
                    "Page.startScreencast",
                    Map.of("format", "jpeg", "quality", 60, "maxWidth", 1280, "maxHeight", 1000));
    }

    private void frame(String session, Map<String, ?> event) {
        byte[] picture = Base64.getDecoder().decode(DevTools.text(event, "data"));
        lastFrame = picture;
        camera.picture(picture);
        long number = DevTools.number(event, "sessionId");
        CompletableFuture.delayedExecutor(FRAME_PAUSE_MILLIS, TimeUnit.MILLISECONDS)
                .execute(() -> tools.ask(session, "Page.screencastFrameAck", Map.of("sessionId", number)));
    }

    @Override
    public Look look(Duration most, boolean fullPage) {
        var look = new Look();
        long until = System.nanoTime() + most.toNanos();
        if (tools.isClosed()) look.note("The browser is gone: its connection is closed.");
        for (Tab tab : windows()) window(look, tab, until, fullPage);
        log.addTo(look);
        return look;
    }

    /** The current one first. */
    private List<Tab> windows() {
        List<Tab> windows = new ArrayList<>();
        for (Tab tab : tabs.values()) {
            if (!tab.isWindow) continue;
            if (tab.target.equals(currentWindow)) windows.add(0, tab);
            else windows.add(tab);
        }
        return windows;
    }

    private void window(Look look, Tab tab, long until, boolean fullPage) {
        boolean current = tab.target.equals(currentWindow);
        String of = current ? "" : " of another window";
        String dialog = tab.dialog;
        if (dialog != null && answers(tab)) dialog = null; // it was closed just now, and that it was is on its way
        if (dialog != null) look.note("The browser shows a dialog" + of + ": \"" + dialog + "\"");
        if (tab.crashed) look.note("The page" + of + " has crashed.");
        if (dialog != null || tab.crashed || tools.isClosed()) {
            lastShown(look, current, dialog != null ? "nothing else can be seen while a dialog is open" : "");
            return;
        }
        try {
            Map<String, ?> main = document(tab, tab.contexts.getOrDefault(tab.target, 0L), until);
            look.note("The browser was at " + main.get("url") + ", titled \"" + main.get("title") + "\"" + of
                    + storage(main));
            look.paper("screenshot" + of, PaperKept.SCREENSHOT, screenshot(tab, until, fullPage), "image/png");
            source(look, "page source" + of, main);
            frames(look, tab, until);
        } catch (TimeoutException late) {
            look.note("The page" + of + " did not answer in time, as one that is busy does not: the rest is missing.");
            lastShown(look, current, "");
        } catch (ExecutionException | RuntimeException none) {
            Throwable why = none.getCause() == null ? none : none.getCause();
            look.note(
                    tab.crashed
                            ? "The page" + of + " has crashed."
                            : "No more evidence from the page" + of + ": " + why.getMessage());
            lastShown(look, current, "");
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            look.note("The thread was interrupted, and the rest is missing.");
        }
    }

    /** A page runs no script while its dialog is open. */
    private boolean answers(Tab tab) {
        try {
            within(tools.ask(tab.session, "Runtime.evaluate", Map.of("expression", "1")), System.nanoTime() + A_MOMENT);
            return true;
        } catch (ExecutionException | TimeoutException none) {
            return false;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private void lastShown(Look look, boolean current, String why) {
        byte[] frame = lastFrame;
        if (!current || frame == null) return;
        if (!why.isEmpty()) look.note("The screenshot is the last one before, for " + why + ".");
        look.paper("screenshot", PaperKept.SCREENSHOT, frame, "image/jpeg");
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

    /** The frames in the page's own process, and those in processes of theirs. */
    private void frames(Look look, Tab window, long until)
            throws ExecutionException, InterruptedException, TimeoutException {
        for (Map.Entry<String, Long> context : window.contexts.entrySet())
            if (!context.getKey().equals(window.target)) frame(look, document(window, context.getValue(), until));
        if (!window.target.equals(currentWindow))
            return; // whose frames the others are, the protocol does not say plainly
        for (Tab tab : tabs.values())
            if (!tab.isWindow) for (long context : tab.contexts.values()) frame(look, document(tab, context, until));
    }

    private static void frame(Look look, Map<String, ?> document) {
        source(look, "source of frame " + document.get("url"), document);
    }

    private static void source(Look look, String name, Map<String, ?> document) {
        String html = DevTools.text(document, "html");
        look.paper(name, PaperKept.PAGE_SOURCE, html.getBytes(StandardCharsets.UTF_8), "text/html");
    }

    private Map<String, ?> document(Tab tab, long context, long until)
            throws ExecutionException, InterruptedException, TimeoutException {
        Map<String, Object> asked = new HashMap<>();
        asked.put("expression", DOCUMENT);
        asked.put("returnByValue", true);
        if (context != 0) asked.put("contextId", context);
        Map<String, ?> answer = within(tools.ask(tab.session, "Runtime.evaluate", asked), until);
        return DevTools.map(DevTools.map(answer, "result"), "value");
    }

    private byte[] screenshot(Tab tab, long until, boolean fullPage)
            throws ExecutionException, InterruptedException, TimeoutException {
        Map<String, ?> answer = within(
                tools.ask(
                        tab.session,
                        "Page.captureScreenshot",
                        Map.of("format", "png", "captureBeyondViewport", fullPage, "optimizeForSpeed", true)),
                until);
        return Base64.getDecoder().decode(DevTools.text(answer, "data"));
    }

    @Override
    public byte[] picture(Duration most) {
        for (Tab tab : windows()) {
            if (!tab.target.equals(currentWindow) || tab.dialog != null) continue;
            try {
                Map<String, ?> answer = within(
                        tools.ask(tab.session, "Page.captureScreenshot", Map.of("format", "jpeg", "quality", 50)),
                        System.nanoTime() + most.toNanos());
                return Base64.getDecoder().decode(DevTools.text(answer, "data"));
            } catch (ExecutionException | TimeoutException none) {
                return new byte[0];
            } catch (InterruptedException stopped) {
                Thread.currentThread().interrupt();
            }
        }
        return new byte[0];
    }

    private static Map<String, ?> within(CompletableFuture<Map<String, ?>> answer, long until)
            throws ExecutionException, InterruptedException, TimeoutException {
        return answer.get(Math.max(1, until - System.nanoTime()), TimeUnit.NANOSECONDS);
    }
}
