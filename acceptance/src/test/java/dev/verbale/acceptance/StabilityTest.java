package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What others may lean on says since when it is there, and how stable it is. */
class StabilityTest {

    private static final Pattern API =
            Pattern.compile("@API\\(status = API\\.Status\\.\\w+, since = \"\\d+\\.\\d+\\.\\d+\"\\)");

    private static final Pattern PUBLIC_TYPE = Pattern.compile(
            "(?m)^public (?:abstract |final |sealed |non-sealed )*(?:class|interface|record|enum|@interface) \\w+");

    @Test
    void every_exported_package_says_how_stable_it_is() {
        List<Path> packages = exported().map(Path::getParent).distinct().toList();

        assertThat(packages).hasSizeGreaterThan(20);
        assertThat(packages)
                .allSatisfy(folder -> assertThat(read(folder.resolve("package-info.java")))
                        .as(folder.toString())
                        .containsPattern(API));
    }

    @Test
    void every_public_type_of_theirs_says_since_when_it_is_there() {
        List<Path> types = exported()
                .filter(file -> PUBLIC_TYPE.matcher(read(file)).find())
                .toList();

        assertThat(types).hasSizeGreaterThan(100);
        assertThat(types).allSatisfy(file -> {
            String text = read(file);
            var type = PUBLIC_TYPE.matcher(text);
            assertThat(type.find()).isTrue();
            assertThat(text.substring(0, type.start()))
                    .as(file.toString())
                    .containsPattern("\\* @since \\d+\\.\\d+\\.\\d+\n");
        });
    }

    /** The sources of exported packages; of a module without a descriptor, which is an automatic one, all. */
    private static Stream<Path> exported() {
        return Checkout.files().stream()
                .filter(file -> file.toString().endsWith(".java"))
                .filter(file -> file.toString().replace('\\', '/').contains("/src/main/java/dev/verbale/"))
                .filter(file -> !file.startsWith(Checkout.ROOT.resolve("benchmarks")))
                .filter(StabilityTest::isExported);
    }

    private static boolean isExported(Path file) {
        Path sources = file;
        while (!sources.endsWith("src/main/java")) sources = sources.getParent();
        Path descriptor = sources.resolve("module-info.java");
        String name = sources.relativize(file.getParent())
                .toString()
                .replace('\\', '/')
                .replace('/', '.');
        return !Files.exists(descriptor) || read(descriptor).contains("exports " + name + ";");
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException cannot) {
            throw new UncheckedIOException(cannot);
        }
    }
}
