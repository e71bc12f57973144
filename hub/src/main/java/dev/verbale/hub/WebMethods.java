package dev.verbale.hub;

/** Methods of HTTP. */
final class WebMethods {

    private WebMethods() {}

    /** Whether it changes nothing (RFC 9110, 9.2.1). */
    static boolean isRead(String method) {
        return method.equals("GET") || method.equals("HEAD");
    }
}
