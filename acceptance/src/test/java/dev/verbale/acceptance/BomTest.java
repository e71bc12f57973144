package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Whoever imports the bill of materials gets every module that is published, and the documentation's version is that of the build. */
class BomTest {

    private static final Pattern MODULE = Pattern.compile("<module>([\\w/-]+)</module>");
    private static final Pattern ARTIFACT = Pattern.compile("</parent>\\s*<artifactId>(verbale-[\\w-]+)</artifactId>");
    private static final Pattern LISTED = Pattern.compile("<artifactId>(verbale-(?!bom)[\\w-]+)</artifactId>");
    private static final Pattern DOCUMENTED = Pattern.compile(
            "<groupId>dev\\.verbale</groupId>\\s*<artifactId>[\\w-]+</artifactId>\\s*<version>([^<]+)</version>");

    /** What is for this project alone. */
    private static final List<String> NOT_PUBLISHED = List.of(
            "bom",
            "acceptance",
            "benchmarks",
            "examples/orto",
            "examples/nights",
            "examples/orto-testng",
            "examples/orto-cucumber",
            "adapters/cucumber/older");

    @Test
    void it_lists_every_published_module() throws Exception {
        List<String> published = found(MODULE, "pom.xml").stream()
                .filter(module -> !NOT_PUBLISHED.contains(module))
                .flatMap(module -> found(ARTIFACT, module + "/pom.xml").stream())
                .toList();

        assertThat(published).hasSizeGreaterThan(20);
        assertThat(found(LISTED, "bom/pom.xml")).containsExactlyInAnyOrderElementsOf(published);
    }

    /** Cucumber asks for both as ranges; without a pin, Maven fetches the POM of every version in them. */
    @Test
    void a_users_first_project_with_cucumber_pins_what_this_build_pins() {
        for (String artifact : List.of("messages", "query"))
            assertThat(found(
                            Pattern.compile("<artifactId>" + artifact + "</artifactId><version>([\\d.]+)</version>"),
                            "examples/first-steps-cucumber/pom.xml"))
                    .isEqualTo(found(Pattern.compile("<cucumber-" + artifact + ".version>([\\d.]+)</"), "pom.xml"));
    }

    @Test
    void the_documentation_names_the_version_of_the_build() {
        assertThat(Stream.of("README.md", "docs/testng.md", "docs/cucumber.md", "docs/junit4.md", "docs/maven.md")
                        .flatMap(page -> found(DOCUMENTED, page).stream()))
                .isNotEmpty()
                .containsOnly(System.getProperty("tested.version"));
    }

    private static List<String> found(Pattern pattern, String file) {
        try {
            Path path = Checkout.ROOT.resolve(file);
            return pattern.matcher(Files.readString(path))
                    .results()
                    .map((MatchResult one) -> one.group(1))
                    .toList();
        } catch (IOException cannot) {
            throw new UncheckedIOException(cannot);
        }
    }
}
