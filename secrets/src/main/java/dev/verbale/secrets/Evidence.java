package dev.verbale.secrets;

/** Whether a value looks like a secret, where its name alone does not tell. */
final class Evidence {

    private static final int SHORTEST = 4;
    private static final int LONG = 16;

    private Evidence() {}

    /**
     * Whether what lies from {@code from} to {@code to} looks like something that is not to be read: of letters and digits, of digits
     * alone as many as a PIN has, of letters in both cases mixed, or long. No words, counts, times, addresses, paths, versions, names
     * of classes.
     */
    static boolean looksSecret(String text, int from, int to) {
        int end = to;
        while (end > from && ".,;:!?".indexOf(text.charAt(end - 1)) >= 0) end--;
        int length = end - from;
        if (length < SHORTEST || Prose.isNoValue(text, from, end)) return false;
        int digits = 0;
        int capitals = 0;
        int small = 0;
        int signs = 0;
        int humps = 0;
        for (int i = from; i < end; i++) {
            char c = text.charAt(i);
            if (Chars.isSpace(c)) return false;
            if (Chars.isDigit(c)) digits++;
            else if (Character.isUpperCase(c)) {
                capitals++;
                if (i > from && Character.isLowerCase(text.charAt(i - 1))) humps++;
            } else if (Chars.isLetter(c)) small++;
            else signs++;
        }
        int letters = capitals + small;
        if (letters == 0) return signs == 0 && digits >= SHORTEST;
        if (isAddress(text, from, end) || isDotted(text, from, end)) return false;
        if (digits > 0) return !isMeasure(text, from, end);
        return signs > 0 && capitals > 0 && small > 0 && letters + signs >= 8 && !isKebab(text, from, end)
                || humps > 1 && length >= 10
                || length >= LONG && signs == 0 && humps > 0;
    }

    private static boolean isAddress(String text, int from, int to) {
        char first = text.charAt(from);
        if (first == '/' || first == '~' || first == '.' || first == '<') return true;
        return text.substring(from, to).contains("://") || to - from > 2 && text.charAt(from + 1) == ':';
    }

    /** As names of classes, hosts, files and versions are: parts of letters, or of digits, with dots between them. */
    private static boolean isDotted(String text, int from, int to) {
        int dots = 0;
        int part = 0;
        for (int i = from; i < to; i++) {
            char c = text.charAt(i);
            if (c == '.') {
                if (part == 0) return false;
                dots++;
                part = 0;
            } else if (Chars.isAlphanumeric(c) || c == '_' || c == '-' || c == '$') part++;
            else return false;
        }
        return dots > 0 && to - from < 60 && part <= 20;
    }

    /** A number with its unit, such as {@code 12ms}, or a word with its number, such as {@code plot-7} or {@code step 2}. */
    private static boolean isMeasure(String text, int from, int to) {
        int i = from;
        while (i < to && Chars.isDigit(text.charAt(i))) i++;
        int unit = i;
        while (i < to && Chars.isLetter(text.charAt(i))) i++;
        if (unit > from && i == to && to - unit <= 2) return true;
        i = from;
        while (i < to && Chars.isLetter(text.charAt(i))) i++; // sha1, utf8
        int number = i;
        while (i < to && Chars.isDigit(text.charAt(i))) i++;
        return number - from <= 4 && i == to && to - number <= 3;
    }

    /** Words with hyphens between them. */
    private static boolean isKebab(String text, int from, int to) {
        for (int i = from; i < to; i++) {
            char c = text.charAt(i);
            if (!Chars.isLetter(c) && c != '-' && c != '_' && c != '/') return false;
        }
        return true;
    }
}
