package dev.verbale.sending;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** The hash by which both ends agree on what was sent (FIPS 180-4). */
final class Sha256 {

    private Sha256() {}

    static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException everyJvmHasIt) {
            throw new IllegalStateException(everyJvmHasIt);
        }
    }

    /** Of what {@code digest} has got so far; it goes on. */
    static String hex(MessageDigest digest) {
        try {
            return HexFormat.of().formatHex(((MessageDigest) digest.clone()).digest());
        } catch (CloneNotSupportedException unusual) {
            throw new IllegalStateException(unusual);
        }
    }
}
