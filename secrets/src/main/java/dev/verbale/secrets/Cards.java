package dev.verbale.secrets;

import java.math.BigInteger;
import java.util.Map;

/**
 * Numbers of payment cards and of bank accounts. A card's number is one by its issuer's range and length, by its check digit
 * (ISO/IEC 7812-1), and by something that speaks for a card: the groups in which people write it, or a word beside it.
 */
final class Cards {

    static final int SHORTEST = 13;
    private static final int LONGEST = 19;
    private static final int UNKNOWN = -2;
    private static final int NEAR_BEFORE = 60;
    private static final int NEAR_AFTER = 30;

    private static final LatePattern SPEAKS_FOR_A_CARD = new LatePattern(
            "(?i)card|visa|master|amex|american|discover|diners|maestro|jcb|credit|debit|\\bpan\\b|\\bpay|\\bpaid|karte|kredit"
                    + "|carta|tarjeta|cvv|cvc|expir");

    private static final LatePattern GROUPS =
            new LatePattern("\\d{4}([ -])\\d{4}\\1\\d{4}\\1\\d{1,7}|\\d{4}([ -])\\d{6}\\2\\d{4,5}");

    /** Lengths by country, of the most frequent; ISO 13616 has them all, and others are told by their check digits alone. */
    private static final Map<String, Integer> IBAN_LENGTHS = Map.ofEntries(
            Map.entry("AT", 20),
            Map.entry("BE", 16),
            Map.entry("CH", 21),
            Map.entry("CZ", 24),
            Map.entry("DE", 22),
            Map.entry("DK", 18),
            Map.entry("ES", 24),
            Map.entry("FI", 18),
            Map.entry("FR", 27),
            Map.entry("GB", 22),
            Map.entry("GR", 27),
            Map.entry("HU", 28),
            Map.entry("IE", 22),
            Map.entry("IT", 27),
            Map.entry("LU", 20),
            Map.entry("NL", 18),
            Map.entry("NO", 15),
            Map.entry("PL", 28),
            Map.entry("PT", 25),
            Map.entry("SE", 24));

    /** Where the first list of the text begins, and its first quote stands; -1 for nowhere, less where that was not asked. */
    private int list = UNKNOWN;

    private int quote = UNKNOWN;

    /** Another text. */
    void begin() {
        list = UNKNOWN;
        quote = UNKNOWN;
    }

    /** Whether a card's number may begin with the digit at {@code at}, or an account's two letters before it: false for nearly all. */
    static boolean mayBeAt(String text, int at) {
        if (at > 0) {
            char before = text.charAt(at - 1);
            if (isCapital(before)) return true;
            if (Chars.isAlphanumeric(before) || before == '_' || before == '.' || before == '-' || before == '+')
                return false;
        }
        return hasEnoughDigits(text, at);
    }

    /** Looks at the digit at {@code at}, with which a number begins. */
    void findAt(String text, int at, Found found) {
        if (at > 0) {
            char before = text.charAt(at - 1);
            if (Chars.isAlphanumeric(before) || before == '_' || before == '.' || before == '-' || before == '+')
                return;
        }
        if (!hasEnoughDigits(text, at)) return;
        var digits = new StringBuilder(LONGEST);
        int end = at;
        int last = at;
        while (end < text.length() && digits.length() <= LONGEST) {
            char c = text.charAt(end);
            if (Chars.isDigit(c)) {
                digits.append(c);
                last = end + 1;
            } else if ((c != ' ' && c != '-') || end == last + 1) break;
            end++;
        }
        if (last < text.length()) {
            char behind = text.charAt(last);
            if (Chars.isAlphanumeric(behind) || behind == '_') return;
            boolean goesOn = (behind == '-' || behind == '.')
                    && last + 1 < text.length()
                    && Chars.isDigit(text.charAt(last + 1));
            if (goesOn) return;
        }
        if (!isIssued(digits) || !hasCheckDigit(digits) || !speaks(text, at, last)) return;
        found.add(at, last, isBareInJson(text, at, last) ? "\"" + Mask.TEXT + "\"" : Mask.TEXT);
    }

    /** Nearly no number has; this makes nothing of one that has not. */
    private static boolean hasEnoughDigits(String text, int at) {
        int digits = 0;
        int last = at;
        for (int i = at; i < text.length(); i++) {
            char c = text.charAt(i);
            if (Chars.isDigit(c)) {
                if (++digits >= SHORTEST) return true;
                last = i + 1;
            } else if ((c != ' ' && c != '-') || i == last + 1) return false;
        }
        return false;
    }

    private static boolean speaks(String text, int from, int to) {
        if (GROUPS.matcher(text.substring(from, to)).matches()) return true;
        int start = Math.max(0, from - NEAR_BEFORE);
        int end = Math.min(text.length(), to + NEAR_AFTER);
        return SPEAKS_FOR_A_CARD.matcher(text.substring(start, from)).find()
                || SPEAKS_FOR_A_CARD.matcher(text.substring(to, end)).find();
    }

    /** A number in JSON, which a mask without quotes would make no JSON. */
    private boolean isBareInJson(String text, int from, int to) {
        int before = from;
        while (before > 0 && Chars.isSpace(text.charAt(before - 1))) before--;
        if (before == 0) return false;
        char sign = text.charAt(before - 1);
        if (sign == ':') {
            int name = before - 1;
            while (name > 0 && Chars.isSpace(text.charAt(name - 1))) name--;
            return name > 0 && text.charAt(name - 1) == '"';
        }
        int behind = Chars.skipSpaces(text, to);
        boolean closes = behind < text.length() && (text.charAt(behind) == ',' || text.charAt(behind) == ']');
        if (!closes || (sign != '[' && sign != ',')) return false;
        if (list == UNKNOWN) list = text.indexOf('[');
        if (quote == UNKNOWN) quote = text.indexOf('"');
        return quote >= 0 && list >= 0 && list < from;
    }

    /** The ranges that the large issuers publish, with their lengths. */
    private static boolean isIssued(CharSequence digits) {
        int length = digits.length();
        if (length < SHORTEST || length > LONGEST) return false;
        int first2 = number(digits, 2);
        int first3 = number(digits, 3);
        int first4 = number(digits, 4);
        if (digits.charAt(0) == '4') return length == 13 || length == 16 || length == 19;
        if (first2 >= 51 && first2 <= 55 || first4 >= 2221 && first4 <= 2720) return length == 16;
        if (first2 == 34 || first2 == 37) return length == 15;
        if (first4 == 6011 || first2 == 65 || first3 >= 644 && first3 <= 649) return length >= 16;
        if (first4 >= 3528 && first4 <= 3589) return length >= 16;
        if (first3 >= 300 && first3 <= 305 || first2 == 36 || first2 == 38 || first2 == 39) return length >= 14;
        return (first2 == 62 || first2 == 50 || first2 >= 56 && first2 <= 58) && length >= 16;
    }

    private static int number(CharSequence digits, int count) {
        return Integer.parseInt(digits, 0, count, 10);
    }

    /** By Luhn's formula, ISO/IEC 7812-1, Annex B: one number of ten passes. */
    private static boolean hasCheckDigit(CharSequence digits) {
        int sum = 0;
        for (int i = 0; i < digits.length(); i++) {
            int digit = digits.charAt(digits.length() - 1 - i) - '0';
            if (i % 2 == 1) digit = digit * 2 > 9 ? digit * 2 - 9 : digit * 2;
            sum += digit;
        }
        return sum % 10 == 0;
    }

    /** Looks at the character at {@code at}, with which an IBAN may begin: two letters, two check digits (ISO 13616). */
    static void iban(String text, int at, Found found) {
        if (at + 15 > text.length() || !isCapital(text.charAt(at)) || !isCapital(text.charAt(at + 1))) return;
        if (!Chars.isDigit(text.charAt(at + 2)) || !Chars.isDigit(text.charAt(at + 3))) return;
        if (at > 0 && Chars.isAlphanumeric(text.charAt(at - 1))) return;
        Integer length = IBAN_LENGTHS.get(text.substring(at, at + 2));
        if (length == null) return;
        var iban = new StringBuilder(length);
        int end = at;
        while (end < text.length() && iban.length() < length) {
            char c = text.charAt(end);
            if (Chars.isDigit(c) || isCapital(c)) iban.append(c);
            else if (c != ' ') break;
            end++;
        }
        if (iban.length() < length || (end < text.length() && Chars.isAlphanumeric(text.charAt(end)))) return;
        if (isValid(iban)) found.add(at, end, Mask.TEXT);
    }

    static boolean isCapital(char c) {
        return c >= 'A' && c <= 'Z';
    }

    /** The rest of the division by 97 is 1, with letters as numbers and the first four characters last (ISO 7064). */
    private static boolean isValid(CharSequence iban) {
        var number = new StringBuilder();
        for (int i = 0; i < iban.length(); i++) {
            char c = iban.charAt((i + 4) % iban.length());
            number.append(isCapital(c) ? c - 'A' + 10 : c - '0');
        }
        return new BigInteger(number.toString()).mod(BigInteger.valueOf(97)).intValue() == 1;
    }
}
