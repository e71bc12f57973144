package dev.verbale.testing;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** A page of the documentation, part of which is made from the code: between two marks. */
public final class MarkedPage {

    private MarkedPage() {}

    /**
     * Sees to it that the page has what the code says; with {@code -Dverbale.docs.write=true} it is written.
     *
     * @param mark what the part is made from, as the marks say it
     * @param how the command that makes it anew, for who reads the failure
     */
    public static void assertHas(Path page, String mark, String made, String how) throws IOException {
        String begin = "<!-- made from the " + mark + ": begin -->\n";
        String end = "<!-- made from the " + mark + ": end -->\n";
        String text = Files.readString(page);
        if (Boolean.getBoolean("verbale.docs.write")) {
            text = text.substring(0, text.indexOf(begin) + begin.length()) + made + text.substring(text.indexOf(end));
            Files.writeString(page, text);
        }
        assertThat(text)
                .as("made anew by: " + how + " -Dverbale.docs.write=true")
                .contains(begin + made + end);
    }
}
