package dev.verbale.report;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_16;
import static java.nio.charset.StandardCharsets.UTF_16BE;
import static java.nio.charset.StandardCharsets.UTF_8;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** A request that is hard to send again, and whether a copy of it can be the same. */
final class DifficultRequest {

    final String what;
    final String method;
    final String path;
    final List<String[]> headers = new ArrayList<>();
    byte[] body;
    /** What the copies say of it where they cannot be the same; empty where they are. */
    String says = "";
    /** The same of the copy as Java, whose client is stricter. */
    String javaSays = "";

    private DifficultRequest(String what, String method, String path) {
        this.what = what;
        this.method = method;
        this.path = path;
    }

    private DifficultRequest header(String name, String value) {
        headers.add(new String[] {name, value});
        return this;
    }

    private DifficultRequest body(String type, byte[] bytes) {
        if (!type.isEmpty()) header("Content-Type", type);
        body = bytes;
        return this;
    }

    private DifficultRequest text(String text) {
        return body("text/plain", text.getBytes(UTF_8));
    }

    private DifficultRequest says(String words) {
        says = words;
        javaSays = words;
        return this;
    }

    private DifficultRequest javaSays(String words) {
        javaSays = words;
        return this;
    }

    private static final List<DifficultRequest> ALL = new ArrayList<>();

    private static DifficultRequest ask(String what, String method, String path) {
        var request = new DifficultRequest(what, method, path);
        ALL.add(request);
        return request;
    }

    private static DifficultRequest post(String what) {
        return ask(what, "POST", "/echo");
    }

    static synchronized List<DifficultRequest> all() {
        if (ALL.isEmpty()) {
            addresses();
            methods();
            headers();
            bodies();
            forms();
        }
        return Collections.unmodifiableList(ALL);
    }

    private static void addresses() {
        String refused = "percent-encoded here";
        for (String path : List.of(
                "/plain",
                "/echo?q=a%20b&empty=&x",
                "/echo?q='",
                "/echo?q=$HOME&r=$(touch%20pwned)",
                "/echo?q=;touch+pwned&r=!1",
                "/echo?a=1&b=2#part",
                "/echo/a/../b",
                "/echo/./a",
                "/echo//a",
                "/echo/%2F%C3%BC;v=1",
                "/echo/~ada/@home/(x)",
                "/echo?filter[crop]=kale",
                "/echo?-X=DELETE",
                "/echo?q=%25%00",
                "/echo?next=https://orto.example/?a=b")) ask("address " + path, "GET", path);
        for (String path : List.of(
                "/echo/[1-6]",
                "/echo?q={a,b}",
                "/echo?q=\"x\"",
                "/echo?q=`touch`",
                "/echo?q=a\\b",
                "/echo?q=100%",
                "/echo?q=a|b",
                "/echo?q=<b>")) ask("address " + path, "GET", path).javaSays(refused);
        ask("a space", "GET", "/echo?q=a b").says(refused);
        ask("letters beyond ASCII", "GET", "/echo/ü?q=ü").says(refused);
    }

    private static void methods() {
        for (String method : List.of("HEAD", "OPTIONS", "DELETE", "PUT", "POST", "PATCH", "PURGE"))
            ask(method + " without a body", method, "/plain");
        ask("DELETE with one", "DELETE", "/echo").text("seven");
        ask("GET with one", "GET", "/echo").text("seven");
        ask("HEAD with one", "HEAD", "/plain")
                .text("seven")
                .says("does not send with HEAD")
                .javaSays("");
    }

    private static void headers() {
        ask("an empty header", "GET", "/plain").header("X-Empty", "");
        ask("quotes in a header", "GET", "/plain").header("X-Odd", "it's \"quoted\" and \\ back");
        ask("a command in a header", "GET", "/plain")
                .header("X-Odd", "$(touch pwned) `touch pwned` ; & | > < !1 %PATH%");
        ask("a header twice", "GET", "/plain").header("X-Bed", "1").header("X-Bed", "2");
        ask("a header that ends in a semicolon", "GET", "/plain").header("X-Odd", "a;");
        ask("a header that begins with an at", "GET", "/plain").header("X-Odd", "@/etc/passwd");
        ask("a long header", "GET", "/plain")
                .header("X-Long", "seed ".repeat(1_000).strip());
        ask("codings", "GET", "/plain").header("Accept-Encoding", "gzip");
        ask("Accept and User-Agent", "GET", "/plain")
                .header("Accept", "application/json")
                .header("User-Agent", "garden/7 (it's mine)");
        ask("a name of its own", "GET", "/plain").header("Host", "orto.example").javaSays("a header Host of its own");
        ask("pseudo headers", "GET", "/plain").header(":authority", "x").header(":path", "/plain");
        ask("framing", "POST", "/echo")
                .header("Transfer-Encoding", "chunked")
                .header("Expect", "100-continue")
                .text("a");
        ask("a token", "GET", "/plain")
                .header("Authorization", "Bearer t0ps3cret")
                .says("[masked] stands");
        ask("no name", "GET", "/plain").header("no name", "x").says("no name of a header");
        ask("a line break", "GET", "/plain")
                .header("X-Odd", "a\r\nX-Planted: 1")
                .says("line break");
    }

    private static void bodies() {
        post("JSON").body("application/json", "{\"who\":\"Ada's \\\"cat\\\"\",\"n\":1.0}".getBytes(UTF_8));
        for (String text : List.of(
                "@/etc/passwd",
                "a=@/etc/passwd",
                "it's",
                "'",
                "''",
                "\"",
                "\\",
                "\\\\u0022 \\u0041 \\n",
                "%s %d %% %n",
                "$HOME $(touch pwned) `touch pwned`",
                "!1\n!!",
                "a\r\nb\tc\n",
                "\n",
                "\u001b[201~touch pwned\n",
                "--x",
                "-",
                "first\n'@\nWrite-Host planted\n@'",
                "‘single’ ‚low‘ “double”",
                "a\u2028b\u202ec\u200f",
                "Kürbis 🎃",
                "a\u0000b",
                "; & | < > * ? [a] {b,c} ~ #",
                "\ufeffwith a mark",
                "\u0001\u0007\u007f\u0085",
                "*/ // \\u002a\\u002f \"); Runtime.getRuntime().exit(7); (\"",
                "a ".repeat(9_000)))
            post("text "
                            + text.strip()
                                    .replaceAll("\\p{C}", "_")
                                    .substring(
                                            0,
                                            Math.min(
                                                    12,
                                                    text.strip()
                                                            .replaceAll("\\p{C}", "_")
                                                            .length())))
                    .text(text);
        post("no type").body("", "seven".getBytes(UTF_8));
        post("latin1").body("text/plain; charset=iso-8859-1", "Kürbis für Jörg".getBytes(ISO_8859_1));
        post("UTF-16BE").body("text/plain; charset=utf-16be", "Kürbis".getBytes(UTF_16BE));
        post("UTF-16")
                .body("text/plain; charset=utf-16", "Kürbis".getBytes(UTF_16))
                .says("UTF-16");
        post("no UTF-8").body("text/plain", new byte[] {'a', (byte) 0xFF, 'b'}).says("no letters of its charset");
        post("binary").body("application/octet-stream", new byte[] {0, 1, 2, (byte) 0xFF, '\n', '\'', 0});
        post("long").body("application/json", ("[" + "{\"crop\":\"Kale\"},".repeat(4_000) + "7]").getBytes(UTF_8));
        post("longer than is kept")
                .body("text/plain", "bed\n".repeat(400_000).getBytes(UTF_8))
                .says("only the beginning");
        post("a secret")
                .body("application/json", "{\"password\":\"t0ps3cret\"}".getBytes(UTF_8))
                .says("[masked] stands");
    }

    private static void forms() {
        post("fields").body("application/x-www-form-urlencoded", "a=%40x&b=1+2&c=".getBytes(UTF_8));
        post("a field with an at")
                .body(
                        "multipart/form-data; boundary=beds",
                        ("--beds\r\nContent-Disposition: form-data; name=\"crop\"\r\n\r\n@/etc/passwd\r\n--beds--\r\n")
                                .getBytes(UTF_8));
        post("parts of many kinds")
                .body(
                        "multipart/form-data; boundary=\"-- beds\"",
                        ("---- beds\r\nContent-Disposition: form-data; name=\"it's\"\r\n\r\n<a;b=c>\r\n"
                                        + "---- beds\r\nContent-Disposition: form-data; name=\"plan\"; filename=\"a\\\";type=b.csv\"\r\n"
                                        + "Content-Type: text/csv; charset=utf-8\r\nX-Bed: 7\r\n\r\nbed,crop\r\n7,Kürbis\r\n\r\n"
                                        + "---- beds--\r\n")
                                .getBytes(UTF_8));
        post("a file in a form")
                .body(
                        "multipart/form-data; boundary=beds",
                        ("--beds\r\nContent-Disposition: form-data; name=\"photo\"; filename=\"bed.png\"\r\n"
                                        + "Content-Type: image/png\r\n\r\n\u0089PNG\r\n\u0000\u0001\r\n--beds--\r\n")
                                .getBytes(ISO_8859_1));
    }
}
