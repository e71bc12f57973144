package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.hostile.ByNight;
import dev.verbale.testing.Jvm;
import java.nio.file.Path;
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

    private HubProcess hub;

    @BeforeEach
    void start() throws Exception {
        hub = new HubProcess(Checkout.ROOT.resolve("cli/target/verbale.jar"), hubFolder);
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
    void stop() {
        hub.close();
    }

    @Test
    @ByNight // by day SenderTest and HubCommandTest send
    void its_run_is_on_the_hub() throws Exception {
        String token = hub.ask("POST", "api/v1/tokens?project=orto&role=send&label=CI");
        var build = new SampleBuild(project);

        Jvm sent = build.mavenOfItsOwn(
                hub.environment(token), "-Dverbale.hub=" + hub.address, "-Dverbale.hub.run=build-7", "-fae", "test");

        assertThat(sent.code()).isEqualTo(1);
        assertThat(sent.output())
                .contains("Verbale: sent to " + hub.address + "projects/orto/runs/build-7/")
                .doesNotContain(token);
        assertThat(hub.ask("GET", "projects/orto/runs/build-7/")).contains("1 of 3 tests did not pass", "snails");
    }

    @Test
    @ByNight
    void a_hub_that_is_away_changes_nothing() throws Exception {
        String token = "nobody-asks-for-it";
        var build = new SampleBuild(project);

        Jvm away = build.mavenOfItsOwn(
                Map.of("VERBALE_HUB_TOKEN", token),
                "-Dverbale.hub=http://127.0.0.1:1",
                "-Dverbale.hub.project=orto",
                "-pl",
                "beds",
                "test");
        assertThat(away.output())
                .contains(
                        "BUILD SUCCESS", "the run was not sent as a whole", "'verbale hub send' sends what is missing");
        assertThat(away.code()).isZero();
    }
}
