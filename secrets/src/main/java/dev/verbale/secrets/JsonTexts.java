package dev.verbale.secrets;

/** In a document of JSON, whatever stands in one of its texts ends with that text, closed or not. */
final class JsonTexts {

    private boolean isJson;

    /** Where the next text ends after what was asked for last. */
    private int end;

    /** Another text, or a piece of one; {@code from} is 0 for the first, which tells what the whole is. */
    void begin(String text, int from) {
        end = -1;
        if (from > 0) return;
        int first = Chars.skipSpaces(text, text.startsWith("\uFEFF") ? 1 : 0);
        int second = Chars.skipSpaces(text, first + 1);
        isJson = second < text.length() && begins(text.charAt(first), text.charAt(second));
    }

    /** A line of a log may begin with a bracket too, but not so. */
    private static boolean begins(char first, char second) {
        return first == '{' ? second == '"' || second == '}' : first == '[' && "{[\"]".indexOf(second) >= 0;
    }

    /** Where the text ends that {@code from} lies in; where there is no JSON, or no end, the end of everything. */
    int end(String text, int from) {
        if (!isJson) return text.length();
        if (end < from) end = Quotes.close(text, from, "\"");
        if (end < 0) end = text.length();
        return end;
    }
}
