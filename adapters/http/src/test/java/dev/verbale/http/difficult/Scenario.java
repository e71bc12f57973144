package dev.verbale.http.difficult;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Something that is asked of the difficult server, by a bare client and by a watched one.
 *
 * @param address a path of the server, or a whole address elsewhere
 * @param streamed how many megabytes are sent as a stream; 0 for the body as it is
 */
public record Scenario(
        String method, String address, Map<String, String> headers, byte[] body, int streamed, Reading reading) {

    /** How the test reads the response. */
    public enum Reading {
        WHOLE,
        /** A part, and the rest when the server was told so. */
        AS_IT_COMES,
        /** All of it, once the server knows that the test has the head. */
        ONCE_IT_IS_THERE,
        /** Ten bytes, and no further. */
        LEFT,
        /** Not at all. */
        UNREAD
    }

    static final String SELF_SIGNED = "https://self-signed";
    static final String NOT_TLS = "https://not-tls";

    static List<Scenario> all() {
        List<Scenario> all = new ArrayList<>();
        for (String path : List.of(
                "/plain",
                "/empty",
                "/latin1",
                "/utf16",
                "/json",
                "/created",
                "/missing",
                "/broken",
                "/gone",
                "/untyped",
                "/nothing-said",
                "/unchanged",
                "/headers",
                "/early",
                "/last",
                "/until-closed",
                "/chunked",
                "/trailers",
                "/gzip",
                "/gzip-chunked",
                "/deflate",
                "/brotli",
                "/said-to-be-gzip",
                "/unknown-coding",
                "/redirect-301",
                "/redirect-302",
                "/redirect-303",
                "/redirect-307",
                "/redirect-308",
                "/redirect-with-body",
                "/redirect-twice",
                "/redirect-absolute",
                "/redirect-nowhere",
                "/redirect-without-location",
                "/loop",
                "/closed",
                "/garbage",
                "/cut-in-head",
                "/stalls-in-head",
                "/stalls-in-body",
                "/basic",
                "/digest",
                "/cookie",
                "/plain?q=a%20b&q=c%2Bd&empty=",
                "/odd%2Fpath;v=1/%C3%BC")) all.add(get(path, Reading.WHOLE));
        for (String path : List.of(
                "/cut-in-body",
                "/cut-before-body",
                "/cut-in-chunk",
                "/cut-between-chunks",
                "/cut-in-gzip",
                "/bad-chunk")) all.add(get(path, Reading.ONCE_IT_IS_THERE));
        all.add(get("/events", Reading.AS_IT_COMES));
        all.add(get("/chunked", Reading.AS_IT_COMES));
        all.add(get("/plain", Reading.LEFT));
        all.add(get("/endless", Reading.LEFT));
        all.add(get("/big", Reading.WHOLE));
        all.add(get("/broken", Reading.UNREAD));
        all.add(get("/plain", Reading.UNREAD));
        all.add(get(SELF_SIGNED, Reading.WHOLE));
        all.add(get(NOT_TLS, Reading.WHOLE));
        all.add(get("http://nowhere.invalid/", Reading.WHOLE));
        all.add(get("http://127.0.0.1:1/", Reading.WHOLE));
        for (String path : List.of("/plain", "/missing", "/empty"))
            all.add(new Scenario("HEAD", path, Map.of(), new byte[0], 0, Reading.WHOLE));
        for (String method : List.of("POST", "PUT", "PATCH", "DELETE"))
            all.add(new Scenario(
                    method, "/echo", type("application/json"), "{\"plot\":7}".getBytes(UTF_8), 0, Reading.WHOLE));
        for (String path :
                List.of("/redirect-301", "/redirect-302", "/redirect-303", "/redirect-307", "/redirect-308", "/basic"))
            all.add(new Scenario("POST", path, type("text/plain"), "seven".getBytes(UTF_8), 0, Reading.WHOLE));
        all.add(new Scenario(
                "POST", "/echo", type("text/plain; charset=utf-8"), "Kürbis".getBytes(UTF_8), 0, Reading.WHOLE));
        all.add(new Scenario("OPTIONS", "/echo", Map.of(), new byte[0], 0, Reading.WHOLE));
        all.add(new Scenario("DELETE", "/nothing-said", Map.of(), new byte[0], 0, Reading.WHOLE));
        Map<String, String> many =
                new LinkedHashMap<>(Map.of("X-Bed", "7", "Accept", "text/plain", "X-Odd", "a,b; c=\"d\""));
        all.add(new Scenario("GET", "/plain", many, new byte[0], 0, Reading.WHOLE));
        all.add(new Scenario("POST", "/counted", type("application/octet-stream"), new byte[0], 50, Reading.WHOLE));
        all.add(new Scenario("POST", "/redirect-307", type("application/octet-stream"), new byte[0], 1, Reading.WHOLE));
        all.add(new Scenario("POST", "/closed", type("application/octet-stream"), new byte[0], 1, Reading.WHOLE));
        return all;
    }

    /** Whether a client that waits for all of the response waits until it has lost its patience. */
    boolean isNeverAnswered() {
        return address.startsWith("/stalls") || address.equals(NOT_TLS);
    }

    private static Map<String, String> type(String type) {
        return Map.of("Content-Type", type);
    }

    private static Scenario get(String path, Reading reading) {
        return new Scenario("GET", path, Map.of(), new byte[0], 0, reading);
    }

    @Override
    public String toString() {
        String sent = streamed > 0 ? " with " + streamed + " MB" : body.length > 0 ? " with a body" : "";
        return method + " " + address + sent + (headers.size() > 1 ? " and headers" : "") + ", " + reading;
    }
}
