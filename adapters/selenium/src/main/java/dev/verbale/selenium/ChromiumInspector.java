package dev.verbale.selenium;

import dev.verbale.Scope;
import dev.verbale.browser.BrowserExchanges;
import dev.verbale.browser.BrowserLog;
import dev.verbale.browser.BrowserSnapshot;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
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
 * brought, and the video. The driver, its current window and an open dialog stay as they are.
 */
final class ChromiumInspector implements BrowserInspector, DevTools.Events {

    /** So many times as long as the browser takes for a frame, none is wanted after it. */
    private static final int PAUSE_TO_FRAME = 12;

    private static final long SHORTEST_PAUSE_MILLIS = 300;
    private static final long LONGEST_PAUSE_MILLIS = 1_000;

    private final Map<String, Target> targets = new ConcurrentHashMap<>();
    /** By the window. */
    private final Map<String, CompletableFuture<?>> attaching = new ConcurrentHashMap<>();

    private final BrowserLog log;
    private final CapturedEvents captured;
    private final BrowserExchanges exchanges;
    private final CapturedExchanges capturedExchanges;
    /** While the connection is open, the session that it serves lives. */
    private final WatchedScreen session;

    private final DevTools tools;
    /** How many documents there were so far, in any window. */
    private final AtomicInteger documents = new AtomicInteger();

    private volatile String currentWindow = "";

    private ChromiumInspector(WatchedScreen session, URI address) {
        this.session = session;
        log = new BrowserLog(session.recorder());
        captured = new CapturedEvents(log);
        exchanges = new BrowserExchanges(session.recorder(), "Chromium");
        tools = DevTools.connect(address, this);
        capturedExchanges = new CapturedExchanges(exchanges, tools);
    }

    /** @throws RuntimeException where the browser does not answer there */
    static ChromiumInspector open(WatchedScreen session, URI address) {
        var inspector = new ChromiumInspector(session, address);
        inspector.attachToWindows(session.timeLimit().toMillis());
        return inspector;
    }

    /**
     * Each window by hand: a second client that asks the browser to attach to all by itself makes a chromedriver wait for ever
     * where a script opens a window. Of those that are there, each is attached to when this returns.
     */
    private void attachToWindows(long millis) {
        tools.ask("", "Target.setDiscoverTargets", Map.of("discover", true))
                .thenCompose(
                        discovered -> CompletableFuture.allOf(attaching.values().toArray(CompletableFuture[]::new)))
                .orTimeout(millis, TimeUnit.MILLISECONDS)
                .join();
    }

    /** The window that the driver is in, by its handle. */
    void currentWindow(String handle) {
        currentWindow = handle;
        if (!session.isFrameWanted()) return;
        for (Target target : targets.values())
            if (isShown(target) && target.sendsFrames.compareAndSet(false, true)) sendFrames(target);
    }

    /** The video shows the window that the test is in; all of them, where nobody hears which that is. */
    private boolean isShown(Target target) {
        return target.isWindow && (target.targetId.equals(currentWindow) || !session.knowsItsWindow());
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
        return targets.values().stream().anyMatch(target -> target.dialog != null);
    }

    @Override
    public void closed() {}

    @Override
    public void event(String sessionId, String method, Map<String, ?> event) {
        Target target = targets.get(sessionId);
        switch (method) {
            case "Target.targetCreated" -> created(DevTools.map(event, "targetInfo"));
            case "Target.targetDestroyed" -> attaching.remove(DevTools.text(event, "targetId"));
            case "Target.attachedToTarget" -> attached(event);
            case "Target.detachedFromTarget" -> targets.remove(DevTools.text(event, "sessionId"));
            case "Page.screencastFrame" -> {
                if (target != null) frame(target, event);
            }
            default -> {
                if (method.equals("Runtime.executionContextsCleared")) documents.incrementAndGet();
                captured.event(method, event);
                capturedExchanges.event(sessionId, method, event);
                if (target != null) changed(target, method, event);
            }
        }
    }

    private void changed(Target target, String method, Map<String, ?> event) {
        switch (method) {
            case "Page.javascriptDialogOpening" -> target.dialog = DevTools.text(event, "message");
            case "Page.javascriptDialogClosed" -> target.dialog = null;
            case "Inspector.targetCrashed" -> {
                target.crashed = true;
                tools.forsake(target.sessionId, "it has crashed");
            }
            case "Runtime.executionContextsCleared" -> target.contexts.clear();
            case "Runtime.executionContextCreated" -> {
                Map<String, ?> context = DevTools.map(event, "context");
                Map<String, ?> about = DevTools.map(context, "auxData");
                if (Boolean.TRUE.equals(about.get("isDefault")))
                    target.contexts.put(DevTools.text(about, "frameId"), DevTools.number(context, "id"));
            }
            case "Runtime.executionContextDestroyed" ->
                target.contexts.values().remove(DevTools.number(event, "executionContextId"));
            default -> {}
        }
    }

    private void created(Map<String, ?> info) {
        if (!DevTools.text(info, "type").equals("page")) return;
        String window = DevTools.text(info, "targetId");
        attaching.put(
                window,
                tools.ask("", "Target.attachToTarget", Map.of("targetId", window, "flatten", true))
                        .exceptionally(closedAgain -> Map.of()));
    }

    private void attached(Map<String, ?> event) {
        Map<String, ?> info = DevTools.map(event, "targetInfo");
        String type = DevTools.text(info, "type");
        if (!type.equals("page") && !type.equals("iframe")) return;
        var target =
                new Target(DevTools.text(event, "sessionId"), DevTools.text(info, "targetId"), type.equals("page"));
        targets.put(target.sessionId, target);
        for (String domain : List.of("Page", "Runtime", "Log", "Network", "Inspector"))
            tools.ask(target.sessionId, domain + ".enable", Map.of());
        tools.ask(
                target.sessionId,
                "Target.setAutoAttach",
                Map.of(
                        "autoAttach",
                        true,
                        "waitForDebuggerOnStart",
                        false,
                        "flatten",
                        true,
                        "filter",
                        List.of(Map.of("type", "iframe"))));
        if (isShown(target) && session.isFrameWanted() && target.sendsFrames.compareAndSet(false, true))
            sendFrames(target);
    }

    /**
     * The browser pays for each frame that its page draws while frames are wanted, whether it is acknowledged or not. So after
     * the first one none is wanted for a while, unless it shows what was shown before: a page that stands still draws no other.
     */
    private void frame(Target target, Map<String, ?> event) {
        boolean isFirst = target.nanosOfFrame == 0;
        if (isFirst) target.nanosOfFrame = System.nanoTime() - target.framesFrom;
        byte[] image = Base64.getDecoder().decode(DevTools.text(event, "data"));
        boolean isNew = !Arrays.equals(image, target.lastFrame);
        if (isFirst && !isNew) {
            long number = DevTools.number(event, "sessionId");
            tools.ask(target.sessionId, "Page.screencastFrameAck", Map.of("sessionId", number));
            return;
        }
        if (isNew) {
            target.lastFrame = image;
            session.shows(image);
        }
        if (!target.waitsForFrame.compareAndSet(true, false)) return; // it was on its way already
        tools.ask(target.sessionId, "Page.stopScreencast", Map.of());
        long pause = PAUSE_TO_FRAME * target.nanosOfFrame / 1_000_000;
        CompletableFuture.delayedExecutor(
                        Math.min(LONGEST_PAUSE_MILLIS, Math.max(SHORTEST_PAUSE_MILLIS, pause)), TimeUnit.MILLISECONDS)
                .execute(() -> {
                    if (isShown(target)) sendFrames(target);
                    else target.sendsFrames.set(false);
                });
    }

    private void sendFrames(Target target) {
        target.nanosOfFrame = 0;
        target.framesFrom = System.nanoTime();
        target.waitsForFrame.set(true);
        tools.ask(
                target.sessionId,
                "Page.startScreencast",
                Map.of("format", "jpeg", "quality", 60, "maxWidth", 1280, "maxHeight", 1000));
    }

    @Override
    public BrowserSnapshot snapshot(Duration limit, boolean fullPage) {
        var snapshot = new BrowserSnapshot.Builder();
        if (tools.isClosed()) snapshot.log("The browser is gone: its connection is closed.");
        new WindowSights(tools, currentWindow, System.nanoTime() + limit.toNanos(), fullPage)
                .addTo(snapshot, windows(), targets.values());
        log.addTo(snapshot);
        return snapshot.build();
    }

    /** The current one first. */
    private List<Target> windows() {
        List<Target> windows = new ArrayList<>();
        for (Target target : targets.values()) {
            if (!target.isWindow) continue;
            if (target.targetId.equals(currentWindow)) windows.add(0, target);
            else windows.add(target);
        }
        return windows;
    }

    @Override
    public byte[] image(Duration limit) {
        for (Target target : windows()) {
            if (!target.targetId.equals(currentWindow) || target.dialog != null) continue;
            try {
                Map<String, ?> answer = tools.ask(
                                target.sessionId, "Page.captureScreenshot", Map.of("format", "jpeg", "quality", 50))
                        .get(limit.toMillis(), TimeUnit.MILLISECONDS);
                return Base64.getDecoder().decode(DevTools.text(answer, "data"));
            } catch (ExecutionException | TimeoutException none) {
                return new byte[0];
            } catch (InterruptedException stopped) {
                Thread.currentThread().interrupt();
            }
        }
        return new byte[0];
    }

    @Override
    public boolean isLastWindow() {
        return targets.values().stream().filter(target -> target.isWindow).count() <= 1;
    }
}
