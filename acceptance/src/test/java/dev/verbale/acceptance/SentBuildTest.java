package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.testing.Jvm;
import java.io.BufferedReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A build with the plugin brings its run to the hub that is set, and ends as it would without one. */
class SentBuildTest {

    @TempDir
    Path project;

    @TempDir
    Path hubFolder;

    private Process hub;
    private String address;
    private String first;

    @BeforeEach
    void start() throws Exception {
        List<String> command = new ArrayList<>(Jvm.SHORT);
        command.add(0, Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(List.of(
                "-jar",
                Checkout.ROOT.resolve("cli/target/verbale.jar").toString(),
                "hub",
                "--port",
                "0",
                "--folder",
                hubFolder.toString()));
        hub = new ProcessBuilder(command).redirectErrorStream(true).start();
        BufferedReader lines = hub.inputReader();
        address = lines.readLine().replaceFirst("The hub is at ", "");
        first = lines.readLine().replaceFirst("A token .*: ", "");
        var build = new SampleBuild(project);
        String plugin = """
                <plugin>
                  <groupId>dev.verbale</groupId><artifactId>verbale-maven-plugin</artifactId><version>%s</version>
                  <extensions>true</extensions>
                </plugin>""".formatted(System.getProperty("tested.version"));
        build.write("pom.xml", SampleBuild.parent(plugin));
        build.write("beds/pom.xml", SampleBuild.module("beds", "", ""));
        build.write("shed/pom.xml", SampleBuild.module("shed", "", ""));
        build.write("beds/src/test/java/BedTest.java", SampleBuild.testClass("BedTest", ""));
        build.write(
                "shed/src/test/java/ShedTest.java",
                SampleBuild.testClass("ShedTest", "@Test void fails() { throw new AssertionError(\"snails\"); }"));
    }

    @AfterEach
    void stop() throws Exception {
        hub.destroy();
        hub.waitFor();
    }

    private String ask(String method, String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address + path))
                                .header("Authorization", "Bearer " + first)
                                .method(method, BodyPublishers.noBody())
                                .build(),
                        BodyHandlers.ofString())
                .body()
                .strip();
    }

    @Test
    void its_run_is_on_the_hub_and_a_hub_that_is_away_changes_nothing() throws Exception {
        String token = ask("POST", "api/v1/tokens?project=orto&role=send&label=CI");
        var build = new SampleBuild(project);

        Jvm sent = build.mavenOfItsOwn(
                Map.of("VERBALE_HUB", address, "VERBALE_HUB_PROJECT", "orto", "VERBALE_HUB_TOKEN", token),
                "-Dverbale.hub.run=build-7",
                "-fae",
                "test");

        assertThat(sent.code()).isEqualTo(1);
        assertThat(sent.output())
                .contains("Verbale: sent to " + address + "projects/orto/runs/build-7/")
                .doesNotContain(token);
        assertThat(ask("GET", "projects/orto/runs/build-7/")).contains("1 of 3 tests did not pass", "snails");

        Jvm away = build.mavenOfItsOwn(
                Map.of("VERBALE_HUB_TOKEN", token),
                "-Dverbale.hub=http://127.0.0.1:1",
                "-Dverbale.hub.project=orto",
                "-pl",
                "beds",
                "test");
        assertThat(away.output())
                .contains("BUILD SUCCESS", "the run was not sent as a whole", "'verbale send' sends what is missing");
        assertThat(away.code()).isZero();
    }
}
