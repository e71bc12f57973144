package dev.verbale.playwright;

import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.PlaywrightException;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.Response;
import com.microsoft.playwright.options.Timing;
import dev.verbale.browser.BrowserExchanges;
import dev.verbale.browser.BrowserLog;
import dev.verbale.browser.Look;
import dev.verbale.event.PaperKept;
import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.video.Camera;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import org.jspecify.annotations.Nullable;

/** What a page gives when something fails, or what it gave last where it is closed by then. */
final class PageEvidence implements EvidenceSource {

    private static final Map<Page, PageEvidence> OF_PAGES = Collections.synchronizedMap(new WeakHashMap<>());
    private static final List<String> ON_OFF = List.of("true", "false");
    private static final long BETWEEN_PICTURES =
            120_000; // microseconds; while something moves there are sixty a second

    private final Recorder recorder = Recorder.current();
    private final Thread thread = Thread.currentThread();
    private final Page page;
    private final Camera camera = new Camera(recorder);
    private final BrowserLog log = new BrowserLog(recorder);
    private final BrowserExchanges exchanges = new BrowserExchanges(recorder, "Playwright");
    private final double millis;
    private final boolean fullPage;
    private final boolean takesLastLook;
    private boolean closed;
    private @Nullable Look lastLook;
    private int lastLookOf;
    private int lastOwner;
    private byte @Nullable [] lastPicture;
    private long lastTaken;
    private long lastFilmed;
    private boolean pending;

    private PageEvidence(Page page) {
        this.page = page;
        String seconds = recorder.setting("verbale.browser.seconds", "5", List.of());
        millis = seconds.matches("[1-9]\\d{0,2}") ? Integer.parseInt(seconds) * 1_000 : 5_000;
        fullPage = recorder.setting("verbale.browser.fullPage", "false", ON_OFF).equals("true");
        takesLastLook =
                recorder.setting("verbale.browser.lastLook", "true", ON_OFF).equals("true");
        listen();
        if (camera.films()) film();
    }

    /** The one of {@code page}: whoever asks first makes it. */
    static PageEvidence of(Page page) {
        return OF_PAGES.computeIfAbsent(page, PageEvidence::new);
    }

    private void listen() {
        page.onConsoleMessage(message -> log.line(level(message.type()), message.text(), place(message.location())));
        page.onPageError(error -> log.line("error", error, ""));
        page.onRequest(request -> {
            log.asked(id(request), request.method(), request.url(), request.resourceType());
            asked(request);
        });
        page.onResponse(response -> {
            log.answered(id(response.request()), response.status());
            exchanges.tell(id(response.request()), exchange -> {
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
        Exchange exchange = exchanges.taken(id(request));
        if (exchange == null) return;
        try {
            Timing timing = request.timing();
            BrowserExchanges.timing(exchange, "dns", timing.domainLookupStart, timing.domainLookupEnd);
            BrowserExchanges.timing(exchange, "connect", timing.connectStart, timing.connectEnd);
            BrowserExchanges.timing(exchange, "first byte", 0, timing.responseStart);
            Response response = request.response();
            long size = response == null ? 0 : length(response);
            if (size > BrowserExchanges.MOST_ASKED_FOR) {
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
        String said = response.headers().getOrDefault("content-length", "");
        return said.matches("\\d{1,18}") ? Long.parseLong(said) : 0;
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
    private static String place(String location) {
        return location.replaceFirst(":\\d+$", "");
    }

    private void film() {
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

    /** Events wait until the test calls Playwright again; the browser knows when the picture was. */
    private void frame(CDPSession session, JsonObject event) {
        byte[] picture = Base64.getDecoder().decode(event.get("data").getAsString());
        double taken = event.getAsJsonObject("metadata").get("timestamp").getAsDouble() * 1_000;
        long age = Math.max(0, Math.round((System.currentTimeMillis() - taken) * 1_000));
        lastPicture = picture;
        lastTaken = recorder.now() - age;
        pending = true;
        if (lastTaken - lastFilmed >= BETWEEN_PICTURES) filmLast();
        var acknowledged = new JsonObject();
        acknowledged.add("sessionId", event.get("sessionId"));
        try {
            session.send("Page.screencastFrameAck", acknowledged);
        } catch (PlaywrightException closing) {
            // no more pictures come, and none is waited for
        }
    }

    /** The last picture before a pause counts most, and may have come too soon after the one before it. */
    private void filmLast() {
        byte[] picture = lastPicture;
        if (!pending || picture == null) return;
        pending = false;
        lastFilmed = lastTaken;
        camera.picture(picture, lastTaken);
    }

    /** The test of this thread uses the page. */
    void used() {
        filmLast();
        Scope owner = recorder.owner();
        if (owner.id() == recorder.run().id()) return;
        exchanges.belongTo(recorder.here());
        if (owner.id() == lastOwner) return;
        lastOwner = owner.id();
        log.forgetBefore(recorder.now());
        recorder.announce(this);
        camera.use(owner);
    }

    /** The page closes now: it may turn out too late that its test has failed. */
    void closes() {
        if (closed) return;
        if (takesLastLook && recorder.owner().id() == lastOwner) {
            lastLook = look();
            lastLookOf = lastOwner;
        }
        closed = true;
        filmLast();
        camera.stop();
    }

    @Override
    public String name() {
        return "page";
    }

    @Override
    public void take(Evidence evidence) {
        try {
            Look look = closed ? lastLookOf == recorder.owner().id() ? lastLook : null : look();
            if (look == null) return;
            if (closed) evidence.note("The page was closed before this failure; what follows is what it showed last.");
            look.writeTo(evidence);
        } finally {
            filmLast();
            camera.failed(evidence);
        }
    }

    private Look look() {
        var look = new Look();
        if (Thread.currentThread() != thread) {
            look.note("The page belongs to thread " + thread.getName() + ", and this is another: it is not asked.");
            return look;
        }
        try {
            if (page.isClosed()) look.note("The page is closed.");
            else fill(look);
        } catch (PlaywrightException none) {
            look.note("The page did not answer in time, or no more: "
                    + String.valueOf(none.getMessage()).lines().findFirst().orElse(""));
            if (lastPicture != null) look.paper("screenshot", PaperKept.SCREENSHOT, lastPicture, "image/jpeg");
        }
        log.addTo(look);
        return look;
    }

    private void fill(Look look) {
        byte[] picture =
                page.screenshot(new Page.ScreenshotOptions().setTimeout(millis).setFullPage(fullPage));
        look.note("The browser was at " + page.url() + ", titled \"" + page.title() + "\"");
        look.paper("screenshot", PaperKept.SCREENSHOT, picture, "image/png");
        for (Frame frame : page.frames()) {
            String name = frame == page.mainFrame() ? "page source" : "source of frame " + frame.url();
            look.paper(name, PaperKept.PAGE_SOURCE, frame.content().getBytes(StandardCharsets.UTF_8), "text/html");
        }
    }

    @Override
    public void ended(Scope scope) {
        filmLast();
        camera.ended(scope);
        if (lastLookOf == scope.id()) lastLook = null;
        if (lastOwner != scope.id()) return;
        lastOwner = 0;
        exchanges.belongTo(null);
    }
}
