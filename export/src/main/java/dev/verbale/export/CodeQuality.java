package dev.verbale.export;

import dev.verbale.json.JsonOut;
import dev.verbale.results.Run;
import dev.verbale.results.source.CodeAtHand;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * Failures as findings of code quality, which forges show in a merge request. Only those whose line is known: without one none can be shown.
 *
 * @see <a href="https://docs.gitlab.com/ci/testing/code_quality/">the format, an array of findings</a>
 * @since 0.2.0
 */
public final class CodeQuality {

    private CodeQuality() {}

    /**
     * Writes those of {@code run} to {@code out}, which stays open.
     *
     * @param root what the paths of files begin at
     * @return how many failures are not in it
     * @throws IOException where it cannot be written
     */
    public static int write(Run run, @Nullable CodeAtHand code, Path root, OutputStream out) throws IOException {
        int without = 0;
        JsonGenerator json = JsonOut.generator(out);
        json.writeStartArray();
        for (FailedLine failed : FailedLine.of(run, code, root)) {
            if (failed.file().isEmpty()) {
                without++;
                continue;
            }
            json.writeStartObject();
            json.writeStringProperty("description", failed.test() + ": " + failed.title());
            json.writeStringProperty("check_name", "test");
            json.writeStringProperty("fingerprint", failed.reason() + "-" + failed.key());
            json.writeStringProperty("severity", "major");
            json.writeObjectPropertyStart("location");
            json.writeStringProperty("path", failed.file());
            json.writeObjectPropertyStart("lines");
            json.writeNumberProperty("begin", failed.line());
            json.writeEndObject();
            json.writeEndObject();
            json.writeEndObject();
        }
        json.writeEndArray();
        json.flush();
        out.write('\n');
        return without;
    }
}
