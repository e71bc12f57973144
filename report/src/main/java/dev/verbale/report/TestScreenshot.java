package dev.verbale.report;

import dev.verbale.results.Entry.AttachmentEntry;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.AttachmentKind;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What was to be seen at last in a test.
 *
 * @param file of the image, in the run's folder
 */
record TestScreenshot(TestResult test, AttachmentEntry image, Path file) {

    private static final int LOOKED_AT = 50;

    /** That of the first of {@code tests} that has one; null where none of the first ones has. */
    static @Nullable TestScreenshot first(List<TestResult> tests) {
        for (TestResult test : tests.subList(0, Math.min(LOOKED_AT, tests.size()))) {
            AttachmentEntry last = AttachmentEntry.last(test.entries(), AttachmentKind.SCREENSHOT);
            if (last != null && last.file() != null) return new TestScreenshot(test, last, last.file());
        }
        return null;
    }

    /** Where its copy is in the page of the run in {@code folder}. */
    String address(Path folder) {
        return AttachmentCopier.address(folder, file, image.stored().mediaType());
    }
}
