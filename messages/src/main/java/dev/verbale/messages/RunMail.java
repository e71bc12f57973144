package dev.verbale.messages;

import dev.verbale.export.MailSummary;
import jakarta.activation.DataHandler;
import jakarta.mail.Address;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Transport;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import jakarta.mail.util.ByteArrayDataSource;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Date;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A run as a mail: HTML with small images inside, its twin in plain text, a subject that says it all. The mails of one branch and week are one
 * conversation.
 *
 * @param title whose runs they are, before the subject; may be empty
 * @param from an address, as RFC 5322 has it
 * @param to addresses, as RFC 5322 has them
 * @since 0.2.0
 */
public record RunMail(RunNews news, String title, String from, List<String> to) {

    private static final String CHARSET = "UTF-8";
    private static final Pattern IMAGE = Pattern.compile("src=\"data:(image/[a-z]+);base64,([A-Za-z0-9+/=]+)\"");
    private static final int LONGEST_SUBJECT = 180;

    /** @throws IllegalArgumentException where one of them is no address, or nobody is to get it */
    public RunMail {
        to = List.copyOf(to);
        if (to.isEmpty()) throw new IllegalArgumentException("nobody is named who is to get the mail");
        address(from);
        to.forEach(RunMail::address);
    }

    private static InternetAddress address(String text) {
        try {
            InternetAddress[] all = InternetAddress.parse(text, true);
            if (all.length != 1 || !all[0].getAddress().contains("@")) throw new AddressException("no address");
            return all[0];
        } catch (AddressException wrong) {
            throw new IllegalArgumentException(
                    "'" + text + "' is no address of a mail, such as ada@orto.example", wrong);
        }
    }

    /** The subject. */
    public String subject() {
        String line = (title.isBlank() ? "" : "[" + RunNews.plain(title) + "] ") + news.line();
        return line.length() <= LONGEST_SUBJECT ? line : line.substring(0, LONGEST_SUBJECT - 1) + "\u2026";
    }

    /**
     * Hands it in.
     *
     * @throws IOException where the server cannot be reached or does not take it; the message names it, and no password
     */
    public void send(MailServer server) throws IOException {
        Session session = Session.getInstance(server.properties());
        try {
            MimeMessage message = message(session);
            try (Transport transport = session.getTransport(server.protocol())) {
                transport.connect(server.address().getHost(), server.port(), server.user(), server.password());
                transport.sendMessage(message, message.getAllRecipients());
            }
        } catch (MessagingException failed) {
            throw new IOException(server.shown() + " did not take the mail: " + reason(failed), failed);
        }
    }

    private static String reason(MessagingException failed) {
        var text = new StringBuilder();
        for (Throwable cause = failed; cause != null && text.length() < 300; cause = cause.getCause())
            if (cause.getMessage() != null && text.indexOf(cause.getMessage()) < 0)
                text.append(text.isEmpty() ? "" : ": ").append(RunNews.plain(cause.getMessage()));
        return text.isEmpty() ? failed.getClass().getSimpleName() : text.toString();
    }

    MimeMessage message(Session session) throws MessagingException {
        String own = UUID.randomUUID() + "@" + host();
        var message = new MimeMessage(session) {
            @Override
            protected void updateMessageID() throws MessagingException {
                setHeader("Message-ID", "<" + own + ">");
            }
        };
        message.setFrom(address(from));
        message.setRecipients(
                MimeMessage.RecipientType.TO, to.stream().map(RunMail::address).toArray(Address[]::new));
        message.setSubject(subject(), CHARSET);
        message.setSentDate(Date.from(Instant.now()));
        message.setHeader("References", "<" + conversation() + ">");
        message.setHeader("In-Reply-To", "<" + conversation() + ">");
        message.setHeader("Auto-Submitted", "auto-generated"); // RFC 3834: nobody's holiday answers
        List<MimeBodyPart> images = new ArrayList<>();
        String html = withImages(MailSummary.html(news.today(), news.page()), own, images);
        var related = new MimeMultipart("related");
        related.addBodyPart(text(html, "html"));
        for (MimeBodyPart image : images) related.addBodyPart(image);
        var alternative = new MimeMultipart("alternative");
        alternative.addBodyPart(text(MailSummary.text(news.today(), news.page()), "plain"));
        var rich = new MimeBodyPart();
        rich.setContent(related);
        alternative.addBodyPart(rich);
        message.setContent(alternative);
        message.saveChanges();
        return message;
    }

    private static MimeBodyPart text(String text, String subtype) throws MessagingException {
        var part = new MimeBodyPart();
        part.setText(text, CHARSET, subtype);
        return part;
    }

    /** Mail programs show images that lie in the mail, and few show those that lie in an address. */
    private static String withImages(String html, String own, List<MimeBodyPart> images) throws MessagingException {
        var text = new StringBuilder();
        Matcher image = IMAGE.matcher(html);
        while (image.find()) {
            String id = (images.size() + 1) + "." + own;
            var part = new MimeBodyPart();
            byte[] bytes = Base64.getDecoder().decode(image.group(2));
            part.setDataHandler(new DataHandler(new ByteArrayDataSource(bytes, image.group(1))));
            part.setContentID("<" + id + ">");
            part.setDisposition(MimeBodyPart.INLINE);
            images.add(part);
            image.appendReplacement(text, Matcher.quoteReplacement("src=\"cid:" + id + "\""));
        }
        return image.appendTail(text).toString();
    }

    /** Of the branch's week; no mail has that id, and programs put those together that refer to it. */
    private String conversation() {
        var day = news.run().started().atOffset(ZoneOffset.UTC);
        String week = day.get(IsoFields.WEEK_BASED_YEAR) + "-w" + day.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR);
        String whose = title + " " + news.run().facts().getOrDefault("branch", "");
        return week + "." + UUID.nameUUIDFromBytes(whose.getBytes(StandardCharsets.UTF_8)) + "@" + host();
    }

    private String host() {
        String address = address(from).getAddress();
        return address.substring(address.lastIndexOf('@') + 1).toLowerCase(Locale.ROOT);
    }
}
