package dev.verbale.browser;

import dev.verbale.MediaType;
import dev.verbale.json.JsonOut;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Context;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.ByteArrayOutputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import tools.jackson.core.JsonGenerator;

/**
 * The last lines that a browser's console said, and the last requests that it made, as attachments in the form of
 * {@code docs/format.md}. From any thread.
 *
 * @since 0.2.0
 */
public final class BrowserLog {

    private static final int MAX = 300;
    private static final int LONGEST = 4_000;
    private static final int LONGEST_ODD_URL = 200;

    private final Context recorder;
    private final Deque<Map<String, Object>> console = new ArrayDeque<>();
    private final Map<String, Map<String, Object>> requests = new LinkedHashMap<>();
    private final AtomicLong redirects = new AtomicLong();

    /** An empty one, whose moments are on the clock of {@code recorder}. */
    public BrowserLog(Context recorder) {
        this.recorder = recorder == null ? AdapterRecorder.none() : recorder;
    }

    /**
     * The console said something, or a script threw.
     *
     * @param level {@code error}, {@code warn}, {@code info} or {@code debug}
     * @param source a URL with a line behind a colon, or empty
     */
    public synchronized void line(String level, String text, String source) {
        if (console.size() == MAX) console.removeFirst();
        Map<String, Object> line = new LinkedHashMap<>();
        line.put("at", recorder.now());
        line.put("level", level);
        line.put("text", recorder.shortened(String.valueOf(text), LONGEST));
        if (source != null && !source.isEmpty()) line.put("source", source);
        console.addLast(line);
    }

    /**
     * The browser asks for something.
     *
     * @param id the same in what comes of it
     * @param type what it is wanted for, such as {@code document} or {@code fetch}
     */
    public synchronized void asked(String id, String method, String url, String type) {
        if (requests.size() == MAX) requests.remove(requests.keySet().iterator().next());
        Map<String, Object> request = new LinkedHashMap<>();
        request.put("at", recorder.now());
        request.put("method", String.valueOf(method));
        String asked = String.valueOf(url);
        // an image may be its own URL
        request.put("url", asked.length() > LONGEST ? recorder.shortened(asked, LONGEST_ODD_URL) : asked);
        request.put("type", String.valueOf(type).toLowerCase(Locale.ROOT));
        requests.put(id, request);
    }

    /** The response was to ask elsewhere, which is a request of its own under the same id. */
    public synchronized void redirected(String id, long status) {
        Map<String, Object> request = requests.remove(id);
        if (request == null) return;
        request.put("status", status);
        requests.put(id + " before redirect " + redirects.incrementAndGet(), request);
    }

    /** A response begins. */
    public synchronized void answered(String id, long status) {
        Map<String, Object> request = requests.get(id);
        if (request != null) request.put("status", status);
    }

    /** A response is complete; {@code bytes} as they came over the wire, or less than 0 where nobody knows. */
    public synchronized void ended(String id, long bytes) {
        Map<String, Object> request = requests.get(id);
        if (request == null) return;
        ends(request);
        if (bytes >= 0) request.put("bytes", bytes);
    }

    /** There was no response, or it broke off. */
    public synchronized void failed(String id, String why) {
        Map<String, Object> request = requests.get(id);
        if (request == null) return;
        ends(request);
        if (!request.containsKey("status")) request.put("failure", String.valueOf(why));
    }

    private void ends(Map<String, Object> request) {
        if (request.get("at") instanceof Long at) request.put("micros", recorder.now() - at);
    }

    /** Forgets what was before {@code at}: it belongs to another test. */
    public synchronized void forgetBefore(long at) {
        console.removeIf(line -> line.get("at") instanceof Long logged && logged < at);
        requests.values().removeIf(request -> request.get("at") instanceof Long asked && asked < at);
    }

    /** Puts what there is into {@code snapshot}. */
    public synchronized void addTo(BrowserSnapshot.Builder snapshot) {
        if (snapshot == null) return;
        add(snapshot, AttachmentKind.CONSOLE, new ArrayList<>(console));
        add(snapshot, AttachmentKind.NETWORK, new ArrayList<>(requests.values()));
    }

    private static void add(BrowserSnapshot.Builder snapshot, String kind, List<Map<String, Object>> lines) {
        if (lines.isEmpty()) return;
        var bytes = new ByteArrayOutputStream();
        try (JsonGenerator json = JsonOut.generator(bytes)) {
            json.writeStartArray();
            for (Map<String, Object> line : lines) {
                json.writeRaw('\n');
                json.writeStartObject();
                line.forEach((field, value) -> {
                    if (value instanceof Long number) json.writeNumberProperty(field, number);
                    else json.writeStringProperty(field, value.toString());
                });
                json.writeEndObject();
            }
            json.writeEndArray();
        }
        snapshot.attach(kind, kind, bytes.toByteArray(), MediaType.JSON);
    }
}
