package dev.verbale.playwright;

import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.PlaywrightException;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.Response;
import com.microsoft.playwright.options.Timing;
import dev.verbale.Evidence;
import dev.verbale.Exchange;
import dev.verbale.MediaType;
import dev.verbale.Scope;
import dev.verbale.browser.BrowserExchanges;
import dev.verbale.browser.BrowserLog;
import dev.verbale.browser.BrowserSession;
import dev.verbale.browser.BrowserSessions;
import dev.verbale.browser.BrowserSnapshot;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.vocabulary.AttachmentKind;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import org.jspecify.annotations.Nullable;

/** A page over the tests that use it. */
final class PageSession extends BrowserSession {

    private static final BrowserSessions<Page, PageSession> SESSIONS = new BrowserSessions<>(PageSession::new);
    private static final long BETWEEN_FRAMES = 120_000; // microseconds; while something moves there are sixty a second

    private final Thread thread = Thread.currentThread();
    private final Page page;
    private final BrowserLog log = new BrowserLog(recorder);
    private final BrowserExchanges exchanges = new BrowserExchanges(recorder, "Playwright");
    private byte @Nullable [] lastImage;
    private long lastTaken;
    private long lastSpooled;
    private boolean pending;

    private PageSession(Page page) {
        super(AdapterRecorder.current(), "page");
        this.page = page;
        listen();
        if (screen.isRecording()) screencast();
    }

    /** The one of {@code page}: whoever asks first makes it. */
    static PageSession of(Page page) {
        return SESSIONS.of(page);
    }

    private void listen() {
        page.onConsoleMessage(message -> log.line(level(message.type()), message.text(), source(message.location())));
        page.onPageError(error -> log.line("error", error, ""));
        page.onRequest(request -> {
            log.asked(id(request), request.method(), request.url(), request.resourceType());
            asked(request);
        });
        page.onResponse(response -> {
            log.answered(id(response.request()), response.status());
            exchanges.update(id(response.request()), exchange -> {
                exchange.status(response.status());
                response.headers().forEach(exchange::responseHeader);
            });
        });
        page.onRequestFinished(request -> {
            log.ended(id(request), -1);
            answered(request);
        });
        page.onRequestFailed(request -> {
            log.failed(id(request), String.valueOf(request.failure()));
            exchanges.failed(id(request), String.valueOf(request.failure()));
        });
        page.onCrash(crashed -> log.line("error", "The page has crashed", ""));
    }

    private void asked(Request request) {
        exchanges.asked(id(request), request.method(), request.url(), request.resourceType(), exchange -> {
            request.headers().forEach(exchange::requestHeader);
            byte[] body = request.postDataBuffer();
            if (body != null) exchange.requestBody(body, "");
        });
    }

    /** Events come in the thread of the test, so its page can be asked for the body here. */
    private void answered(Request request) {
        Exchange exchange = exchanges.remove(id(request));
        if (exchange == null) return;
        try {
            Timing timing = request.timing();
            BrowserExchanges.timing(exchange, "dns", timing.domainLookupStart, timing.domainLookupEnd);
            BrowserExchanges.timing(exchange, "connect", timing.connectStart, timing.connectEnd);
            BrowserExchanges.timing(exchange, "first byte", 0, timing.responseStart);
            Response response = request.response();
            long size = response == null ? 0 : length(response);
            if (size > BrowserExchanges.MAX_ASKED_FOR) {
                BrowserExchanges.endedWithout(exchange, size);
                return;
            }
            byte[] body = response == null ? new byte[0] : response.body();
            if (body.length > 0) exchange.responseBody(body, "");
        } catch (PlaywrightException gone) {
            // as of a redirect, or of a page that closes
        }
        exchange.ended();
    }

    private static long length(Response response) {
        String length = response.headers().getOrDefault("content-length", "");
        return length.matches("\\d{1,18}") ? Long.parseLong(length) : 0;
    }

    private static String id(Request request) {
        return String.valueOf(System.identityHashCode(request));
    }

    private static String level(String type) {
        return switch (type) {
            case "error", "assert" -> "error";
            case "warning" -> "warn";
            case "debug" -> "debug";
            default -> "info";
        };
    }

    /** Playwright tells {@code address:line:column}. */
    private static String source(String location) {
        return location.replaceFirst(":\\d+$", "");
    }

    private void screencast() {
        try {
            CDPSession session = page.context().newCDPSession(page);
            session.on("Page.screencastFrame", event -> frame(session, event));
            var wanted = new JsonObject();
            wanted.addProperty("format", "jpeg");
            wanted.addProperty("quality", 60);
            wanted.addProperty("maxWidth", 1280);
            wanted.addProperty("maxHeight", 1000);
            session.send("Page.startScreencast", wanted);
        } catch (PlaywrightException | NullPointerException noChromium) { // or a page that only stands for one
            // of other browsers there are the screenshots
        }
    }

    /** Events wait until the test calls Playwright again; the browser knows when the frame was. */
    private void frame(CDPSession session, JsonObject event) {
        byte[] image = Base64.getDecoder().decode(event.get("data").getAsString());
        double taken = event.getAsJsonObject("metadata").get("timestamp").getAsDouble() * 1_000;
        long age = Math.max(0, Math.round((System.currentTimeMillis() - taken) * 1_000));
        lastImage = image;
        lastTaken = recorder.now() - age;
        pending = true;
        if (lastTaken - lastSpooled >= BETWEEN_FRAMES) spoolLast();
        var acknowledged = new JsonObject();
        acknowledged.add("sessionId", event.get("sessionId"));
        try {
            session.send("Page.screencastFrameAck", acknowledged);
        } catch (PlaywrightException closing) {
            // no more frames come, and none is waited for
        }
    }

    /** The last frame before a pause counts most, and may have come too soon after the one before it. */
    private void spoolLast() {
        byte[] image = lastImage;
        if (!pending || image == null) return;
        pending = false;
        lastSpooled = lastTaken;
        screen.frame(image, lastTaken);
    }

    @Override
    public void used() {
        spoolLast();
        super.used();
    }

    @Override
    public void closes() {
        if (!isClosed()) spoolLast();
        super.closes();
    }

    @Override
    public void capture(Evidence evidence) {
        spoolLast();
        super.capture(evidence);
    }

    @Override
    protected void testEnds() {
        spoolLast();
    }

    @Override
    protected void belongTo(@Nullable Scope scope) {
        exchanges.belongTo(scope);
    }

    @Override
    protected void forgetBefore(long at) {
        log.forgetBefore(at);
    }

    @Override
    protected BrowserSnapshot snapshot(Duration limit, boolean wholePage) {
        var snapshot = new BrowserSnapshot.Builder();
        if (Thread.currentThread() != thread) {
            snapshot.log("The page belongs to thread " + thread.getName() + ", and this is another: it is not asked.");
            return snapshot.build();
        }
        try {
            if (page.isClosed()) snapshot.log("The page is closed.");
            else fill(snapshot, limit, wholePage);
        } catch (PlaywrightException none) {
            snapshot.log("The page did not answer in time, or no more: "
                    + String.valueOf(none.getMessage()).lines().findFirst().orElse(""));
            if (lastImage != null) snapshot.attach("screenshot", AttachmentKind.SCREENSHOT, lastImage, MediaType.JPEG);
        }
        log.addTo(snapshot);
        return snapshot.build();
    }

    private void fill(BrowserSnapshot.Builder snapshot, Duration limit, boolean wholePage) {
        byte[] image = page.screenshot(new Page.ScreenshotOptions()
                .setTimeout((double) limit.toMillis())
                .setFullPage(wholePage));
        snapshot.log("The browser was at " + page.url() + ", titled \"" + page.title() + "\"");
        snapshot.attach("screenshot", AttachmentKind.SCREENSHOT, image, MediaType.PNG);
        for (Frame frame : page.frames()) {
            String name = frame == page.mainFrame() ? "page source" : "source of frame " + frame.url();
            snapshot.attach(
                    name, AttachmentKind.PAGE_SOURCE, frame.content().getBytes(StandardCharsets.UTF_8), MediaType.HTML);
        }
    }
}
