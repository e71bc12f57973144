package dev.verbale.report;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Exchange;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.http.difficult.DifficultServer;
import dev.verbale.http.difficult.Received;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the page copies is run, and sends again what was sent, or says why not. */
class CopiedCommandsTest {

    private static final Set<String> OF_THE_CLIENT =
            Set.of("content-length", "host", "connection", "expect", "transfer-encoding", "upgrade", "http2-settings");

    /** Each line of what curl is told by PowerShell: an option, and at the most one value in quotes. */
    private static final Pattern OPTION = Pattern.compile(
            "(?:globoff|path-as-is|head|compressed|(?:url|request|header|data-raw|data-binary) = \"(?:[^\"\\\\]++|\\\\[\\\\\"nrtv])*+\")");

    private static final Pattern PART = Pattern.compile(
            " {2}\\$part = (?:\\[Convert\\]::FromBase64String\\('([A-Za-z0-9+/=]*)'\\)|\\[IO.File\\]::ReadAllBytes\\(\\(Join-Path \\$PWD '([^']*)'\\)\\)); \\$body.Write\\(\\$part, 0, \\$part.Length\\)");

    private static DifficultServer server;
    private static List<Map<String, String>> copied;

    @TempDir
    static Path root;

    private static Path folder;

    @BeforeAll
    @SuppressWarnings("unchecked")
    static void record_all_and_copy_each() throws IOException {
        server = new DifficultServer();
        folder = Files.createDirectory(root.resolve("where it is run"));
        try (var chromium = new Chromium()) {
            chromium.open(page(), "#/test/sample.Requests.all()");
            chromium.find(".exchange summary");
            chromium.script("document.querySelectorAll('.exchange > details > summary').forEach(one => one.click())");
            chromium.waitFor("return document.querySelectorAll('.exchange .copy-commands').length >= "
                    + DifficultRequest.all().size());
            chromium.script("navigator.clipboard.writeText = t => { window.taken = t; return Promise.resolve() }");
            copied = (List<Map<String, String>>)
                    chromium.script("return [...document.querySelectorAll('.exchange')].map(one => Object.fromEntries("
                            + "[...one.querySelectorAll('.copy-commands button:not(.compare)')].map(button => {"
                            + " const name = button.textContent; button.click(); return [name, window.taken]; })))");
            for (Object link :
                    (List<?>) chromium.script("return [...document.querySelectorAll('.exchange section:first-child "
                            + "a[download]')].map(one => [one.getAttribute('href'), one.download])")) {
                var saved = (List<String>) link;
                Files.copy(
                        root.resolve("page").resolve(URLDecoder.decode(saved.get(0), UTF_8)),
                        folder.resolve(saved.get(1)));
            }
        }
        assertThat(copied).hasSameSizeAs(DifficultRequest.all()).hasSizeGreaterThan(60);
    }

    @AfterAll
    static void close() throws IOException {
        server.close();
    }

    private static Path page() throws IOException {
        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("sample.Requests.all()", "asks")
                        .className("sample.Requests")
                        .methodName("all")
                        .build());
        for (DifficultRequest request : DifficultRequest.all()) {
            Exchange exchange = recorder.exchange(request.method, server.address(request.path));
            for (String[] header : request.headers) exchange.requestHeader(header[0], header[1]);
            if (request.body != null) exchange.requestBody(request.body, "");
            exchange.status(200).ended();
        }
        recorder.endTest(test, TestEnd.passed());
        return Page.write(RunReader.read(recorder.folder()), root.resolve("page"));
    }

    @Test
    void as_curl_for_bash() throws Exception {
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < copied.size(); i++) {
            DifficultRequest request = DifficultRequest.all().get(i);
            String command = copied.get(i).get("copy as curl");
            int before = server.received().size();
            Path script = Files.writeString(root.resolve("copied.sh"), command + "\n");
            run("bash", script.toString());
            judge(request, request.says, "#", command, before, wrong);
        }
        assertThat(wrong).isEmpty();
        assertThat(folder.resolve("pwned")).doesNotExist();
    }

    @Test
    void for_powershell_with_what_that_hands_to_curl() throws Exception {
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < copied.size(); i++) {
            DifficultRequest request = DifficultRequest.all().get(i);
            String command = copied.get(i).get("for PowerShell");
            int before = server.received().size();
            asPowerShellWould(command);
            judge(request, request.says, "#", command, before, wrong);
        }
        assertThat(wrong).isEmpty();
    }

    /** By the rules of the language for the few forms that these commands have; another form fails. */
    private static void asPowerShellWould(String command) throws Exception {
        List<String> lines = new ArrayList<>(List.of(command.split("\n", -1)));
        lines.removeIf(line -> line.startsWith("# "));
        int from = lines.indexOf("  @'");
        int to = -1;
        for (int i = 0; i < lines.size(); i++)
            if (to < 0 && i > from && lines.get(i).startsWith("'@")) to = i;
        assertThat(lines.subList(0, 2)).containsExactly("& {", "  $OutputEncoding = [Text.UTF8Encoding]::new($false)");
        List<String> options = lines.subList(from + 1, to);
        assertThat(options).allMatch(line -> OPTION.matcher(line).matches(), command);
        List<String> arguments = new ArrayList<>(List.of("curl", "--config", "-"));
        if (from > 2) {
            assertThat(lines.get(2)).isEqualTo("  $body = [IO.MemoryStream]::new()");
            var body = new ByteArrayOutputStream();
            for (String line : lines.subList(3, from - 2)) body.write(part(line));
            assertThat(lines.subList(from - 2, from))
                    .containsExactly(
                            "  $file = New-TemporaryFile", "  [IO.File]::WriteAllBytes($file, $body.ToArray())");
            arguments.add("--data-binary");
            arguments.add("@" + Files.write(root.resolve("powershell body"), body.toByteArray()));
            assertThat(lines.subList(to, lines.size()))
                    .containsExactly("'@ | curl.exe --config - --data-binary \"@$file\"", "  Remove-Item $file", "}");
        } else {
            assertThat(lines.subList(to, lines.size())).containsExactly("'@ | curl.exe --config -", "}");
        }
        Process curl = new ProcessBuilder(arguments)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        curl.getOutputStream().write((String.join("\n", options) + "\n").getBytes(UTF_8));
        curl.getOutputStream().close();
        curl.getInputStream().readAllBytes();
        curl.waitFor();
    }

    private static byte[] part(String line) throws IOException {
        Matcher part = PART.matcher(line);
        assertThat(part.matches()).as(line).isTrue();
        return part.group(1) != null
                ? Base64.getDecoder().decode(part.group(1))
                : Files.readAllBytes(folder.resolve(part.group(2)));
    }

    @Test
    void as_java() throws Exception {
        var code = new StringBuilder("import java.net.URI;\nimport java.net.http.*;\npublic class Copied {\n");
        for (int i = 0; i < copied.size(); i++)
            code.append("static void request")
                    .append(i)
                    .append("() throws Exception {\n")
                    .append(copied.get(i).get("as Java"))
                    .append("\n}\n");
        code.append("public static void main(String[] arguments) throws Exception {\n");
        for (int i = 0; i < copied.size(); i++)
            code.append("try { request")
                    .append(i)
                    .append("(); System.out.println(\"sent\"); }")
                    .append(" catch (Exception failed) { System.out.println(failed); }\n");
        Path source = Files.writeString(root.resolve("Copied.java"), code + "}\n}\n", UTF_8);
        int at = server.received().size();

        String[] output = run(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(), source.toString())
                .strip()
                .split("\n");

        assertThat(output).as(String.join("\n", output)).hasSize(copied.size());
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < copied.size(); i++) {
            DifficultRequest request = DifficultRequest.all().get(i);
            if (!output[i].equals("sent")) wrong.add(request.what + ": " + output[i]);
            else judge(request, request.javaSays, "//", copied.get(i).get("as Java"), at++, wrong);
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void what_is_no_http_and_what_has_no_method_is_not_copied() throws IOException {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("no http")).withSummaryLine(false));
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("a.B.c()", "asks")
                        .className("a.B")
                        .methodName("c")
                        .build());
        recorder.exchange("ASK", "tcp://gate:7070").ended();
        recorder.exchange("GET -o ~/.bashrc", server.address("/plain")).ended();
        recorder.exchange("GET", "file:///etc/passwd").ended();
        recorder.exchange("GET'; touch pwned; '", server.address("/plain")).ended();
        recorder.endTest(test, TestEnd.passed());
        Path index = Page.write(RunReader.read(recorder.folder()), root.resolve("no http page"));
        try (var chromium = new Chromium()) {
            chromium.open(index, "#/test/a.B.c()");
            chromium.find(".exchange summary");
            chromium.script("document.querySelectorAll('.exchange > details > summary').forEach(one => one.click())");
            chromium.find(".exchange .copy-commands");

            assertThat(chromium.texts(".copy-commands button:not(.compare)")).isEmpty();
        }
    }

    private static String run(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        String output = new String(process.getInputStream().readAllBytes(), UTF_8);
        process.waitFor();
        return output;
    }

    private static void judge(
            DifficultRequest request, String says, String sign, String command, int at, List<String> wrong) {
        String remarks = String.join(
                "\n",
                command.lines().takeWhile(line -> line.startsWith(sign + " ")).toList());
        if (!says.isEmpty()) {
            if (!remarks.contains(says)) wrong.add(request.what + ": does not say why it is not the same: " + command);
            return;
        }
        String unexpected =
                remarks.replaceAll("(?m)^(#|//) (Save the body as|The client adds a header User-Agent).*", "");
        if (!unexpected.isBlank()) wrong.add(request.what + ": " + unexpected);
        if (server.received().size() <= at) {
            wrong.add(request.what + ": nothing came: " + command);
            return;
        }
        Received received = server.received().get(at);
        String line = request.method + " " + request.path.replaceFirst("#.*", "") + " HTTP/1.1";
        String sent = new String(line.getBytes(UTF_8), ISO_8859_1);
        if (!received.line().equals(sent)) wrong.add(request.what + ": " + received.line() + " and not " + sent);
        List<String> expected = new ArrayList<>();
        for (String[] header : request.headers)
            if (!OF_THE_CLIENT.contains(header[0].toLowerCase(Locale.ROOT)) && !header[0].startsWith(":"))
                expected.add(header[0].toLowerCase(Locale.ROOT) + ": " + header[1]);
        List<String> headers = new ArrayList<>();
        for (String header : received.headers()) {
            String name = header.replaceFirst(":.*", "").toLowerCase(Locale.ROOT);
            boolean javas = sign.equals("//") && name.equals("user-agent") && header.contains("Java-http-client");
            if (!OF_THE_CLIENT.contains(name) && !javas)
                headers.add(name + ": " + header.substring(name.length() + 1).strip());
        }
        if (!headers.stream()
                .sorted()
                .toList()
                .equals(expected.stream().sorted().toList()))
            wrong.add(request.what + ": " + headers + " and not " + expected);
        String body = request.body == null ? "" : new String(request.body, ISO_8859_1);
        if (!received.body().equals(body)) wrong.add(request.what + ": the body is another: " + command);
    }
}
