package dev.verbale.selenium;

import dev.verbale.Exchange;
import dev.verbale.browser.BrowserExchanges;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;

/** Brings what the protocol reports of the network into {@link BrowserExchanges}, and asks for the responses' bodies. */
final class CapturedExchanges {

    private final BrowserExchanges exchanges;
    private final DevTools tools;
    private final Map<String, String> types = new ConcurrentHashMap<>();

    CapturedExchanges(BrowserExchanges exchanges, DevTools tools) {
        this.exchanges = exchanges;
        this.tools = tools;
    }

    /** Something that the protocol reports of {@code session}; what is no exchange is passed over. */
    void event(String session, String method, Map<String, ?> event) {
        String id = DevTools.text(event, "requestId");
        switch (method) {
            case "Network.requestWillBeSent" -> asked(id, event);
            case "Network.responseReceived" ->
                exchanges.update(id, exchange -> {
                    types.put(id, DevTools.text(DevTools.map(event, "response"), "mimeType"));
                    answered(exchange, DevTools.map(event, "response"));
                });
            case "Network.loadingFinished" -> ended(session, id, DevTools.number(event, "encodedDataLength"));
            case "Network.loadingFailed" -> {
                types.remove(id);
                exchanges.failed(id, DevTools.text(event, "errorText"));
            }
            default -> {}
        }
    }

    private void asked(String id, Map<String, ?> event) {
        Map<String, ?> redirect = DevTools.map(event, "redirectResponse");
        if (!redirect.isEmpty()) {
            Exchange before = exchanges.remove(id);
            if (before != null) {
                answered(before, redirect);
                before.ended();
            }
        }
        Map<String, ?> request = DevTools.map(event, "request");
        String type = DevTools.text(event, "type");
        exchanges.asked(id, DevTools.text(request, "method"), DevTools.text(request, "url"), type, exchange -> {
            headers(request, exchange::requestHeader);
            String body = DevTools.text(request, "postData"); // not there where it is no text
            if (!body.isEmpty()) exchange.requestBody(body.getBytes(StandardCharsets.UTF_8), contentType(request));
        });
    }

    private static void answered(Exchange exchange, Map<String, ?> response) {
        exchange.status((int) DevTools.number(response, "status"))
                .protocol(DevTools.text(response, "protocol").toUpperCase(Locale.ROOT));
        headers(response, exchange::responseHeader);
        Map<String, ?> timing = DevTools.map(response, "timing");
        part(exchange, "dns", timing, "dnsStart", "dnsEnd");
        part(exchange, "connect", timing, "connectStart", "connectEnd");
        part(exchange, "TLS", timing, "sslStart", "sslEnd");
        if (millis(timing, "receiveHeadersEnd") > 0)
            BrowserExchanges.timing(exchange, "first byte", 0, millis(timing, "receiveHeadersEnd"));
    }

    private static void part(Exchange exchange, String part, Map<String, ?> timing, String from, String to) {
        if (timing.containsKey(from)) BrowserExchanges.timing(exchange, part, millis(timing, from), millis(timing, to));
    }

    private static double millis(Map<String, ?> timing, String moment) {
        return timing.get(moment) instanceof Number number ? number.doubleValue() : -1;
    }

    private static void headers(Map<String, ?> message, BiConsumer<String, String> into) {
        DevTools.map(message, "headers")
                // several of one name come with a line break between them
                .forEach((name, value) -> String.valueOf(value).lines().forEach(one -> into.accept(name, one)));
    }

    private static String contentType(Map<String, ?> message) {
        for (Map.Entry<String, ?> header : DevTools.map(message, "headers").entrySet())
            if (header.getKey().equalsIgnoreCase("content-type")) return String.valueOf(header.getValue());
        return "";
    }

    /** The body is another question to the browser, and the exchange is written when that is answered. */
    private void ended(String session, String id, long size) {
        Exchange exchange = exchanges.remove(id);
        if (exchange == null) return;
        String type = types.getOrDefault(id, "");
        types.remove(id);
        if (size > BrowserExchanges.MAX_ASKED_FOR) {
            BrowserExchanges.endedWithout(exchange, size);
            return;
        }
        tools.ask(session, "Network.getResponseBody", Map.of("requestId", id)).whenComplete((answer, none) -> {
            if (answer != null) {
                String text = DevTools.text(answer, "body");
                boolean binary = Boolean.TRUE.equals(answer.get("base64Encoded"));
                byte[] body = binary ? Base64.getDecoder().decode(text) : text.getBytes(StandardCharsets.UTF_8);
                // the browser has read the text in its charset, and gives it in the protocol's
                if (body.length > 0) exchange.responseBody(body, binary ? type : type + "; charset=utf-8");
            }
            exchange.ended();
        });
    }
}
