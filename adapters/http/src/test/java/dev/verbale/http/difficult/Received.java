package dev.verbale.http.difficult;

import java.util.List;

/**
 * A request as it came over the wire.
 *
 * @param headers as lines, in their order
 * @param body as text of one byte a character; of a long one its length and sum
 */
public record Received(String line, List<String> headers, String body) {

    String method() {
        return line.substring(0, line.indexOf(' '));
    }

    String path() {
        return line.split(" ")[1];
    }

    String header(String name) {
        for (String one : headers)
            if (one.regionMatches(true, 0, name + ":", 0, name.length() + 1))
                return one.substring(name.length() + 1).strip();
        return "";
    }
}
