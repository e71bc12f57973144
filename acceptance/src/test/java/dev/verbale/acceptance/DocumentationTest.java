package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.testing.Jvm;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the documentation says is so. */
class DocumentationTest {

    private static final Path PROJECT = Path.of("..").toAbsolutePath().normalize();
    private static final List<String> PAGES = List.of(
            "README.md",
            "docs/guide.md",
            "docs/http.md",
            "docs/hub.md",
            "docs/handing-on.md",
            "docs/ci.md",
            "docs/commands.md",
            "docs/browsers.md",
            "docs/page.md",
            "docs/settings.md",
            "docs/format.md",
            "docs/performance.md",
            "docs/security.md",
            "docs/reading-the-code.md",
            "docs/testng.md",
            "docs/cucumber.md",
            "docs/junit4.md",
            "docs/first-day.md",
            "docs/maven.md",
            "docs/gradle.md",
            "docs/own-runner.md",
            "docs/history.md",
            "docs/query.md",
            "docs/lake.md",
            "docs/scale.md",
            "docs/questions/README.md",
            "docs/rules.md",
            "docs/reasons.md",
            "docs/export.md");
    private static final Pattern COMPILED = Pattern.compile("<!-- compile -->\\n```java\\n(.*?)```", Pattern.DOTALL);
    private static final Pattern FILE =
            Pattern.compile("<!-- file: (\\S+?)(?:, \\w+)? -->\\n```\\w+\\n(.*?)```", Pattern.DOTALL);
    private static final Pattern OF_EXAMPLE =
            Pattern.compile("<!-- from: (\\S+) -->\\n```\\w+\\n(.*?)```", Pattern.DOTALL);
    private static final Pattern LINK = Pattern.compile("\\]\\(([^)#:]+)(#[^)]*)?\\)");

    @TempDir
    Path folder;

    /** All at once: most of the time is the compiler's start. Each has a folder of its own, for several have classes of one name. */
    @Test
    void snippets_compile() throws Exception {
        List<String> sources = new ArrayList<>();
        for (String page : PAGES) {
            for (MatchResult snippet : matches(COMPILED, page)) {
                String code = snippet.group(1);
                String name = code.replaceAll("(?s).*?\\nclass (\\w+).*", "$1");
                String own = "snippet" + sources.size();
                Path source = Files.createDirectories(folder.resolve(own)).resolve(name + ".java");
                Files.writeString(source, "package " + own + "; // of " + page + "\n" + code);
                sources.add(source.toString());
            }
        }
        assertThat(sources).hasSizeGreaterThanOrEqualTo(4);
        List<String> arguments = new ArrayList<>(List.of(
                "-cp",
                Jvm.classPath(),
                "-proc:none",
                "-d",
                folder.resolve("compiled").toString()));
        arguments.addAll(sources);
        Compiled.with(arguments);
    }

    /** The examples are run by a test of their own. */
    @Test
    void snippets_of_examples_stand_in_them() throws Exception {
        int found = 0;
        for (String page : PAGES) {
            for (MatchResult snippet : matches(OF_EXAMPLE, page)) {
                assertThat(Files.readString(PROJECT.resolve(snippet.group(1)))).contains(snippet.group(2));
                found++;
            }
        }
        assertThat(found).isGreaterThanOrEqualTo(4);
    }

    @Test
    void links_and_images_are_there() throws Exception {
        for (String page : PAGES) {
            for (MatchResult link : matches(LINK, page)) {
                Path target = PROJECT.resolve(page).resolveSibling(link.group(1));
                assertThat(target).as(page + " links to " + link.group(1)).exists();
            }
        }
    }

    @Test
    void the_format_page_has_every_event_of_the_schema() throws Exception {
        String schema = Files.readString(PROJECT.resolve("docs/journal.schema.json"));
        String page = Files.readString(PROJECT.resolve("docs/format.md"));

        List<String> events = Pattern.compile("\"event\": \\{\\s*\"const\": \"([a-z-]+)\"")
                .matcher(schema)
                .results()
                .map(match -> match.group(1))
                .toList();
        assertThat(events).hasSize(21).allSatisfy(event -> assertThat(page).contains("| `" + event + "` |"));
    }

    /** The 60 seconds of the README, typed as they stand there, in a project of somebody else's. */
    @Test
    void a_project_that_follows_the_readme_has_its_run() throws Exception {
        String dependency = null;
        for (MatchResult file : matches(FILE, "README.md")) {
            if (file.group(1).equals("pom.xml")) dependency = file.group(2);
            else write(file.group(1), file.group(2));
        }
        assertThat(dependency).isNotNull();
        write("pom.xml", pom(dependency));

        Jvm maven = SampleBuild.maven(folder, "test");

        assertThat(maven.code()).as(maven.output()).isEqualTo(1); // its one test fails on purpose
        String closing = maven.output()
                .lines()
                .filter(line -> line.startsWith("Verbale: "))
                .findFirst()
                .orElseThrow(() -> new AssertionError(maven.output()));
        assertThat(closing).matches("Verbale: 1 test: 1 failed\\. Recorded in target/verbale/\\S+");
        Jvm failures = Jvm.java(Map.of(), folder, "dev.verbale.cli.Main", "failures");
        assertThat(failures.output())
                .contains("the_gate_opens_at_eight", "expected: <8> but was: <7>", "GateTest.java:");
        assertThat(Jvm.java(Map.of(), folder, "dev.verbale.cli.Main", "failures", "--all")
                        .output())
                .contains("01-timetable.csv");
        Jvm page = Jvm.java(Map.of(), folder, "dev.verbale.cli.Main", "page");
        assertThat(page.output()).contains("Page: " + closing.replaceAll(".* in ", "") + "/page/index.html");
    }

    private static String pom(String dependency) {
        return """
                <project xmlns="http://maven.apache.org/POM/4.0.0">
                  <modelVersion>4.0.0</modelVersion>
                  <groupId>sample</groupId><artifactId>gate</artifactId><version>1</version>
                  <properties>
                    <maven.compiler.release>17</maven.compiler.release>
                    <project.build.sourceEncoding>UTF-8</project.build.sourceEncoding>
                  </properties>
                  <dependencies>
                    <dependency>
                      <groupId>org.junit.jupiter</groupId><artifactId>junit-jupiter</artifactId><version>%s</version>
                      <scope>test</scope>
                    </dependency>
                    %s
                  </dependencies>
                  <build><plugins>
                    <plugin><artifactId>maven-resources-plugin</artifactId><version>3.5.0</version></plugin>
                    <plugin><artifactId>maven-compiler-plugin</artifactId><version>3.16.0</version></plugin>
                    <plugin><artifactId>maven-surefire-plugin</artifactId><version>%s</version></plugin>
                  </plugins></build>
                </project>
                """.formatted(System.getProperty("junit.version"), dependency, System.getProperty("surefire.version"));
    }

    private void write(String name, String content) throws Exception {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, content);
    }

    private static List<MatchResult> matches(Pattern pattern, String page) throws Exception {
        return pattern.matcher(Files.readString(PROJECT.resolve(page)))
                .results()
                .toList();
    }
}
