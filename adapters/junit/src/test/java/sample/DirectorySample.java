package sample;

import java.nio.file.Files;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestReporter;

/** Publishes a folder. */
public class DirectorySample {

    @Test
    void publishes(TestReporter reporter) {
        reporter.publishDirectory("harvest", folder -> {
            Files.writeString(folder.resolve("beans.csv"), "plot,kilos\n");
            Files.writeString(Files.createDirectories(folder.resolve("july")).resolve("kale.csv"), "plot,kilos\n");
        });
    }
}
