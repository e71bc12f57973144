package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Who means no good, or does not know better: nothing gets in that should not, nothing gets out, and others are served. */
@Timeout(120)
class StrangersTest {

    private static final String FILES = "api/v1/projects/orto/runs/night/parts/one/files";

    @TempDir
    Path root;

    private HubFixture hub;
    private String send;
    private String read;

    @BeforeEach
    void begin() throws Exception {
        hub = new HubFixture(root.resolve("server"), null);
        send = hub.token("orto", Role.SEND, "CI");
        read = hub.token("orto", Role.READ, "Ada");
    }

    @AfterEach
    void end() {
        hub.close();
    }

    private HttpResponse<String> create(String path, String bytes, String... more) throws Exception {
        String name = Base64.getEncoder().encodeToString(path.getBytes(StandardCharsets.UTF_8));
        List<String> headers = new ArrayList<>(
                List.of("Tus-Resumable", "1.0.0", "Upload-Defer-Length", "1", "Upload-Metadata", "filename " + name));
        headers.addAll(List.of("Content-Type", "application/offset+octet-stream"));
        headers.addAll(List.of(more));
        return hub.api(send, "POST", FILES, bytes, headers.toArray(String[]::new));
    }

    private HttpResponse<String> append(String token, String location, long at, String bytes, String... more)
            throws Exception {
        List<String> headers = new ArrayList<>(List.of(
                "Tus-Resumable", "1.0.0", "Upload-Offset", "" + at, "Content-Type", "application/offset+octet-stream"));
        headers.addAll(List.of(more));
        return hub.api(token, "PATCH", location, bytes, headers.toArray(String[]::new));
    }

    @Test
    void who_is_no_proxy_names_nobody() throws Exception {
        var elsewhere = new HubOptions.Proxy(Set.of(InetAddress.getByName("192.0.2.1")), "X-Forwarded-User");
        HubOptions options = HubFixture.options(root.resolve("behind"), 0).withProxy(elsewhere);
        try (Hub behind = Hub.start(options)) {
            HttpRequest asked = HttpRequest.newBuilder(behind.address().resolve("metrics"))
                    .header("X-Forwarded-User", "root@orto.example")
                    .build();
            assertThat(hub.client.send(asked, BodyHandlers.ofString()).statusCode())
                    .isEqualTo(401);
        }
        assertThatThrownBy(() -> new HubOptions.Proxy(Set.of(), "X-Forwarded-User"))
                .hasMessageContaining("anybody could say who they are");
    }

    @Test
    void a_proxy_that_keeps_the_host_to_itself_has_a_public_address_and_no_other_site_has() throws Exception {
        HubOptions options = HubFixture.options(root.resolve("public"), 0)
                .withPublicAddress(URI.create("https://runs.orto.example/hub"));
        try (Hub behind = Hub.start(options)) {
            for (String origin : List.of(
                    "https://runs.orto.example",
                    "http://runs.orto.example",
                    "https://runs.orto.example.weeds.example",
                    "https://weeds.example",
                    "null")) {
                HttpRequest form = HttpRequest.newBuilder(behind.address().resolve("enter"))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .header("Origin", origin)
                        .POST(BodyPublishers.ofString("token=" + HubFixture.ADMINISTER))
                        .build();
                assertThat(hub.client.send(form, BodyHandlers.ofString()).statusCode())
                        .as(origin)
                        .isEqualTo(origin.equals("https://runs.orto.example") ? 303 : 403);
            }
        }
    }

    @Test
    void a_client_of_tus_creates_appends_and_asks_as_the_protocol_says() throws Exception {
        HttpResponse<String> options = hub.api(null, "OPTIONS", FILES, "");
        assertThat(options.statusCode()).isEqualTo(204);
        assertThat(options.headers().firstValue("Tus-Extension").orElse(""))
                .contains("creation-defer-length", "checksum");

        HttpResponse<String> created = create("run.json", "");
        String location = created.headers().firstValue("Location").orElseThrow();
        assertThat(created.statusCode()).isEqualTo(201);
        assertThat(location).as("wherever a proxy has it").startsWith("../");
        location = hub.address().resolve(FILES).resolve(location).getPath();
        assertThat(append(send, location, 0, "beans").statusCode()).isEqualTo(204);
        HttpResponse<String> wrong = append(send, location, 3, "kale");
        assertThat(wrong.statusCode()).isEqualTo(409);
        assertThat(wrong.headers().firstValue("Upload-Offset")).hasValue("5");
        HttpResponse<String> head = hub.api(send, "HEAD", location, "", "Tus-Resumable", "1.0.0");
        assertThat(head.headers().firstValue("Upload-Offset")).hasValue("5");
        assertThat(head.headers().firstValue("Upload-Defer-Length")).hasValue("1");
        HttpResponse<String> again = create("run.json", "other");
        assertThat(again.statusCode()).isEqualTo(200);
        assertThat(again.headers().firstValue("Location").orElse("")).endsWith(location.replaceFirst(".*(?=/)", ""));
        assertThat(hub.api(send, "HEAD", location, "").statusCode())
                .as("another version")
                .isEqualTo(412);
        String checksum = "sha256 "
                + Base64.getEncoder()
                        .encodeToString(
                                MessageDigest.getInstance("SHA-256").digest("kale".getBytes(StandardCharsets.UTF_8)));
        assertThat(append(send, location, 5, "kal0", "Upload-Checksum", checksum)
                        .statusCode())
                .isEqualTo(460);
        assertThat(append(send, location, 5, "kale", "Upload-Checksum", checksum)
                        .statusCode())
                .isEqualTo(204);
        assertThat(append(send, location, 9, "x", "Upload-Checksum", "md5 x").statusCode())
                .isEqualTo(400);
        assertThat(append(send, location, -1, "x").statusCode()).isEqualTo(400);
        assertThat(append(read, location, 9, "x").statusCode()).as("not theirs").isEqualTo(404);
        assertThat(append(hub.token("shed", Role.SEND, "shed"), location, 9, "x")
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void no_path_leads_out_of_its_part() throws Exception {
        for (String path : List.of(
                "../../../x",
                "a/../../x",
                "/etc/x",
                "a//b",
                "a/./b",
                "..",
                "",
                "a\\..\\b",
                "a\nb",
                "a\u0000b",
                "page/index.html",
                "shards/other/run.json",
                "page",
                "a/",
                "C:\\x",
                "x".repeat(300)))
            assertThat(create(path, "weeds").statusCode()).as(path).isIn(400, 422);
        assertThat(create("tests/RotaTest/01-<script>.csv", "fine").statusCode())
                .isEqualTo(201);
        Path copy = hub.copyOf("orto", "night").resolve("shards/one/tests/RotaTest/01-<script>.csv");
        while (!Files.exists(copy)) Thread.onSpinWait();
        try (Stream<Path> files = Files.walk(root.resolve("server/hub/copies"))) {
            assertThat(files.filter(Files::isRegularFile))
                    .allMatch(file -> file.toString().contains("/orto/night/"));
        }
    }

    @Test
    void files_that_stand_in_each_others_way_hold_up_nobody_else() throws Exception {
        create("a", "file");
        create("a/b", "below a file");
        create("c/d/e", "file");
        create("c/d", "where a folder is");
        create("after/it", "all");

        Path after = hub.copyOf("orto", "night").resolve("shards/one/after/it");
        while (!Files.exists(after) || Files.size(after) < 3) Thread.onSpinWait();
        assertThat(after).hasContent("all");
        HttpResponse<String> end = hub.api(send, "POST", FILES.replaceFirst("files$", "end"), "");
        assertThat(end.statusCode()).as("what cannot be copied is not whole").isEqualTo(409);
        assertThat(end.body())
                .contains("a/b: cannot be copied there", "c/d/e: cannot be copied there")
                .doesNotContain("after/it: cannot");
    }

    @Test
    void no_name_is_a_way_elsewhere() throws Exception {
        String name = Base64.getEncoder().encodeToString("a".getBytes(StandardCharsets.UTF_8));
        for (String path : List.of(
                "orto/runs/../parts/one/files",
                "orto/runs/%2e%2e/parts/one/files",
                "orto/runs/a%2fb/parts/one/files",
                "orto/runs/night/parts/%00/files",
                "orto/runs/.hidden/parts/one/files",
                "none/runs/night/parts/one/files"))
            assertThat(hub.api(
                                    send,
                                    "POST",
                                    "api/v1/projects/" + path,
                                    "x",
                                    "Tus-Resumable",
                                    "1.0.0",
                                    "Upload-Metadata",
                                    "filename " + name)
                            .statusCode())
                    .as(path)
                    .isIn(400, 401, 403, 404, 422);
    }

    @Test
    void what_is_too_long_or_broken_is_refused_and_the_hub_goes_on() throws Exception {
        assertThat(create("a", "x".repeat(9 << 20)).statusCode()).isEqualTo(413);
        assertThat(raw("POST /" + FILES + " HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer " + send
                        + "\r\nTus-Resumable: 1.0.0\r\nUpload-Metadata: filename YQ==\r\n"
                        + "Content-Type: application/offset+octet-stream\r\nContent-Length: 10000000000\r\n\r\n"))
                .startsWith("HTTP/1.1 413");
        assertThat(raw("GET / HTTP/1.1\r\nHost: x\r\nX-Weeds: " + "w".repeat(1 << 20) + "\r\n\r\n"))
                .startsWith("HTTP/1.1 431");
        assertThat(raw("GET / HTTP/1.1\r\n\r\n")).startsWith("HTTP/1.1 400");
        assertThat(hub.api(send, "POST", "api/v1/projects/orto/runs/night/parts/one/end", "weeds")
                        .statusCode())
                .isEqualTo(400);
        assertThat(hub.api(send, "POST", FILES, "x", "Tus-Resumable", "1.0.0", "Upload-Metadata", "filename !!!")
                        .statusCode())
                .isEqualTo(400);
        assertThat(hub.api(send, "PATCH", "api/v1/uploads/99999", "x", "Tus-Resumable", "1.0.0")
                        .statusCode())
                .isEqualTo(404);
        assertThat(hub.api(read, "TRACE", "", "").statusCode()).isIn(405);
        assertThat(hub.api(read, "POST", "projects/orto/", "").statusCode()).isEqualTo(405);
        assertThat(hub.get(null, "health").statusCode()).isEqualTo(200);
    }

    private String raw(String request) throws Exception {
        try (var socket =
                new Socket(InetAddress.getLoopbackAddress(), hub.address().getPort())) {
            socket.setSoTimeout(30_000);
            socket.getOutputStream().write(request.getBytes(StandardCharsets.ISO_8859_1));
            InputStream in = socket.getInputStream();
            return new String(in.readNBytes(12), StandardCharsets.ISO_8859_1);
        }
    }

    @Test
    void who_guesses_tokens_has_to_wait() throws Exception {
        List<Integer> answers = new ArrayList<>();
        for (int i = 0; i < 25; i++)
            answers.add(hub.get("guess-" + i, "projects/orto/").statusCode());

        assertThat(answers.subList(0, 20)).containsOnly(401);
        assertThat(answers.subList(20, 25)).containsOnly(429);
        assertThat(hub.get(read, "projects/orto/").statusCode())
                .as("others behind the same proxy")
                .isEqualTo(200);
    }

    @Test
    void a_person_enters_with_a_token_once_and_no_other_site_can_do_it() throws Exception {
        HttpResponse<String> before = hub.get(null, "");
        assertThat(before.statusCode()).isEqualTo(401);
        assertThat(before.body()).contains("<form", "type=\"password\"", "action=\"enter\"");
        assertThat(hub.get(null, "projects/orto/runs/x/").body()).contains("action=\"../../../../enter\"");
        assertThat(before.headers().firstValue("Content-Security-Policy").orElse(""))
                .contains("frame-ancestors 'none'");
        String form = "Content-Type";
        String type = "application/x-www-form-urlencoded";
        assertThat(hub.api(null, "POST", "enter", "token=" + read, form, type, "Origin", "https://weeds.example")
                        .statusCode())
                .isEqualTo(403);
        HttpResponse<String> wrong = hub.api(null, "POST", "enter", "token=%3Cb%3Eguess", form, type);
        assertThat(wrong.statusCode()).isEqualTo(401);
        assertThat(wrong.body()).contains("no token of this hub").doesNotContain("<b>guess");

        HttpResponse<String> entered = hub.api(null, "POST", "enter", "token=" + read, form, type);

        String cookie = entered.headers().firstValue("Set-Cookie").orElseThrow();
        assertThat(entered.statusCode()).isEqualTo(303);
        assertThat(cookie).contains("HttpOnly", "SameSite=Strict").doesNotContain(read);
        String session = cookie.replaceFirst(";.*", "");
        assertThat(hub.api(null, "GET", "", "", "Cookie", session).body()).contains("projects/orto/");
        hub.api(HubFixture.ADMINISTER, "DELETE", "api/v1/tokens?label=Ada", "");
        assertThat(hub.api(null, "GET", "", "", "Cookie", session).statusCode())
                .as("ended with its token")
                .isEqualTo(401);
    }

    @Test
    void every_answer_says_that_nothing_of_it_may_run_elsewhere() throws Exception {
        for (String path : List.of("", "health", "metrics", "projects/orto/", "projects/none/", "api/v1/uploads/1")) {
            HttpResponse<String> answer = hub.client.send(
                    HttpRequest.newBuilder(hub.address().resolve(path))
                            .header("Authorization", "Bearer " + read)
                            .method("GET", BodyPublishers.noBody())
                            .build(),
                    BodyHandlers.ofString());
            assertThat(answer.headers().firstValue("X-Content-Type-Options"))
                    .as(path)
                    .hasValue("nosniff");
            assertThat(answer.headers().firstValue("Content-Security-Policy").orElse(""))
                    .as(path)
                    .contains("frame-ancestors 'none'");
            assertThat(answer.headers().map()).as(path).doesNotContainKey("server");
        }
    }
}
