package dev.verbale.selenium;

import dev.verbale.browser.BrowserLog;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Brings what the protocol reports of console and network into a {@link BrowserLog}. */
final class CapturedEvents {

    private final BrowserLog log;

    CapturedEvents(BrowserLog log) {
        this.log = log;
    }

    /** Something that the protocol reports; what is neither a line nor a request is passed over. */
    void event(String method, Map<String, ?> event) {
        switch (method) {
            case "Runtime.consoleAPICalled" ->
                log.line(consoleLevel(DevTools.text(event, "type")), text(event), source(event));
            case "Runtime.exceptionThrown" -> thrown(DevTools.map(event, "exceptionDetails"));
            case "Log.entryAdded" -> logged(DevTools.map(event, "entry"));
            case "Network.requestWillBeSent" -> asked(event);
            case "Network.responseReceived" ->
                log.answered(
                        DevTools.text(event, "requestId"), DevTools.number(DevTools.map(event, "response"), "status"));
            case "Network.loadingFinished" ->
                log.ended(DevTools.text(event, "requestId"), DevTools.number(event, "encodedDataLength"));
            case "Network.loadingFailed" ->
                log.failed(DevTools.text(event, "requestId"), DevTools.text(event, "errorText"));
            default -> {}
        }
    }

    private static String consoleLevel(String type) {
        return switch (type) {
            case "error", "assert" -> "error";
            case "warning" -> "warn";
            case "debug" -> "debug";
            default -> "info";
        };
    }

    private static String text(Map<String, ?> event) {
        if (!(event.get("args") instanceof List<?> arguments)) return "";
        return arguments.stream().map(CapturedEvents::shown).collect(Collectors.joining(" "));
    }

    private static String shown(Object argument) {
        if (!(argument instanceof Map<?, ?> object)) return String.valueOf(argument);
        Object value = object.get("value");
        if (value == null) value = object.get("unserializableValue");
        if (value == null) value = object.get("description");
        return String.valueOf(value == null ? object.get("type") : value);
    }

    private static String source(Map<String, ?> event) {
        Object frames = DevTools.map(event, "stackTrace").get("callFrames");
        if (!(frames instanceof List<?> list) || list.isEmpty() || !(list.get(0) instanceof Map<?, ?> first)) return "";
        return first.get("url") + ":" + (first.get("lineNumber") instanceof Number line ? line.longValue() + 1 : "");
    }

    private void thrown(Map<String, ?> details) {
        String text = DevTools.text(DevTools.map(details, "exception"), "description");
        if (text.isEmpty()) text = DevTools.text(details, "text");
        String url = DevTools.text(details, "url");
        log.line(
                "error",
                text,
                url.isEmpty() ? source(details) : url + ":" + (DevTools.number(details, "lineNumber") + 1));
    }

    private void logged(Map<String, ?> entry) {
        String level = DevTools.text(entry, "level");
        String url = DevTools.text(entry, "url");
        log.line(
                level.equals("warning") ? "warn" : level.equals("verbose") ? "debug" : level,
                DevTools.text(entry, "text"),
                url);
    }

    private void asked(Map<String, ?> event) {
        Map<String, ?> request = DevTools.map(event, "request");
        String id = DevTools.text(event, "requestId");
        Map<String, ?> redirect = DevTools.map(event, "redirectResponse");
        if (!redirect.isEmpty()) log.redirected(id, DevTools.number(redirect, "status"));
        log.asked(id, DevTools.text(request, "method"), DevTools.text(request, "url"), DevTools.text(event, "type"));
    }
}
