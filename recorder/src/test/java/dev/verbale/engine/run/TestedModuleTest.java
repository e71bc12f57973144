package dev.verbale.engine.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Which module a JVM tests where no build says it, as in an editor. */
class TestedModuleTest {

    @TempDir
    Path folder;

    @Test
    void the_outermost_project_that_names_a_folder_as_its_module_holds_it() throws Exception {
        write("pom.xml", "<project><modules><module>garden</module></modules></project>");
        write("garden/pom.xml", "<project><modules><module>beds</module></modules></project>");
        Path beds = write("garden/beds/pom.xml", "<project/>");
        Path shed = write("garden/shed/pom.xml", "<project/>");

        assertThat(TestedModule.withoutBuild(beds)).isEqualTo("garden/beds");
        assertThat(TestedModule.withoutBuild(folder.resolve("garden"))).isEqualTo("garden");
        assertThat(TestedModule.withoutBuild(folder)).isEmpty();
        assertThat(TestedModule.withoutBuild(shed)).as("nobody names it").isEmpty();
    }

    @Test
    void a_project_of_gradle_holds_what_lies_in_it() throws Exception {
        write("settings.gradle.kts", "include(\"beds\")");

        assertThat(TestedModule.withoutBuild(write("beds/build.gradle.kts", "")))
                .isEqualTo("beds");
    }

    @Test
    void a_broken_project_costs_its_modules_and_nothing_else() throws Exception {
        write("pom.xml", "<project><modules><module>be");

        assertThat(TestedModule.withoutBuild(write("beds/pom.xml", "<project/>")))
                .isEmpty();
    }

    /** The folder that the file lies in. */
    private Path write(String name, String text) throws IOException {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        return file.getParent();
    }
}
