package dev.verbale.messages;

import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.Properties;
import org.jspecify.annotations.Nullable;

/**
 * Where mails are handed in, and as whom.
 *
 * @param address {@code smtp://USER@HOST:PORT}, which has to offer STARTTLS unless it is this machine, or {@code smtps://...}; the port left
 *     out, 587 or 465
 * @param password null for a server that asks for none
 * @since 0.2.0
 */
public record MailServer(URI address, @Nullable String password) {

    private static final int SUBMISSION = 587; // RFC 6409
    private static final int SUBMISSIONS = 465; // RFC 8314
    private static final String PATIENCE_MILLIS = "20000";

    /** @throws IllegalArgumentException where it is no address of a mail server, or a password would be sent that is part of it */
    public MailServer {
        boolean isKnown = "smtp".equals(address.getScheme()) || "smtps".equals(address.getScheme());
        if (!isKnown || address.getHost() == null)
            throw new IllegalArgumentException(
                    "it is no address of a mail server, such as smtp://ci@mail.orto.example:587");
        if (address.getUserInfo() != null && address.getUserInfo().contains(":"))
            throw new IllegalArgumentException("a password does not belong into an address, which stands in logs");
    }

    boolean isTlsFromTheStart() {
        return "smtps".equals(address.getScheme());
    }

    int port() {
        return address.getPort() > 0 ? address.getPort() : isTlsFromTheStart() ? SUBMISSIONS : SUBMISSION;
    }

    String protocol() {
        return isTlsFromTheStart() ? "smtps" : "smtp";
    }

    @Nullable
    String user() {
        return address.getUserInfo();
    }

    /** For people, without what nobody needs to know. */
    String shown() {
        return address.getScheme() + "://" + address.getHost() + ":" + port();
    }

    Properties properties() {
        var properties = new Properties();
        String prefix = "mail." + protocol() + ".";
        properties.setProperty("mail.transport.protocol", protocol());
        properties.setProperty(prefix + "host", address.getHost());
        properties.setProperty(prefix + "port", String.valueOf(port()));
        for (String time : new String[] {"connectiontimeout", "timeout", "writetimeout"})
            properties.setProperty(prefix + time, PATIENCE_MILLIS); // they are endless otherwise
        properties.setProperty(prefix + "auth", String.valueOf(user() != null));
        properties.setProperty(prefix + "ssl.checkserveridentity", "true");
        properties.setProperty(prefix + "starttls.enable", "true");
        properties.setProperty(prefix + "starttls.required", String.valueOf(!isThisMachine()));
        return properties;
    }

    private boolean isThisMachine() {
        try {
            return InetAddress.getByName(address.getHost()).isLoopbackAddress();
        } catch (UnknownHostException unknown) {
            return false; // sending says so
        }
    }
}
