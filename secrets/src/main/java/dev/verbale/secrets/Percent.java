package dev.verbale.secrets;

/** Characters as URLs and forms encode them (RFC 3986): a percent sign and two digits, the sign itself encoded once or several times. */
final class Percent {

    private Percent() {}

    /** Behind what stands at {@code at} for one of {@code codes}, such as {@code 3A}; {@code at} where none does. */
    static int behind(String text, int at, String... codes) {
        if (at >= text.length() || text.charAt(at) != '%') return at;
        int i = at + 1;
        while (text.startsWith("25", i)) i += 2;
        for (String code : codes) if (text.regionMatches(true, i, code, 0, 2)) return i + 2;
        return at;
    }

    /** Where what stands for one of {@code codes} begins that ends before {@code end}; {@code end} where none does. */
    static int before(String text, int end, String... codes) {
        for (String code : codes) {
            int i = end - 2;
            if (i < 1 || !text.regionMatches(true, i, code, 0, 2)) continue;
            while (i > 2 && text.startsWith("25", i - 2)) i -= 2;
            if (text.charAt(i - 1) == '%') return i - 1;
        }
        return end;
    }
}
