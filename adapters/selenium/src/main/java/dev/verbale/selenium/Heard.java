package dev.verbale.selenium;

import dev.verbale.recorder.Recorder;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** The last lines that a browser's console said, and the last requests that it made. From any thread. */
final class Heard {

    private static final int MOST = 300;
    private static final int LONGEST = 4_000;

    private final Recorder recorder;
    private final Deque<Map<String, Object>> console = new ArrayDeque<>();
    private final Map<String, Map<String, Object>> requests = new LinkedHashMap<>();

    Heard(Recorder recorder) {
        this.recorder = recorder;
    }

    /** Something that the protocol reports; what is neither a line nor a request is passed over. */
    synchronized void event(String method, Map<String, ?> event) {
        switch (method) {
            case "Runtime.consoleAPICalled" ->
                line(consoleLevel(DevTools.text(event, "type")), said(event), place(event));
            case "Runtime.exceptionThrown" -> thrown(DevTools.map(event, "exceptionDetails"));
            case "Log.entryAdded" -> logged(DevTools.map(event, "entry"));
            case "Network.requestWillBeSent" -> asked(event);
            case "Network.responseReceived" -> answered(event);
            case "Network.loadingFinished" -> ended(event, "");
            case "Network.loadingFailed" -> ended(event, DevTools.text(event, "errorText"));
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

    private static String said(Map<String, ?> event) {
        if (!(event.get("args") instanceof List<?> arguments)) return "";
        return arguments.stream().map(Heard::shown).collect(Collectors.joining(" "));
    }

    private static String shown(Object argument) {
        if (!(argument instanceof Map<?, ?> object)) return String.valueOf(argument);
        Object value = object.get("value");
        if (value == null) value = object.get("unserializableValue");
        if (value == null) value = object.get("description");
        return String.valueOf(value == null ? object.get("type") : value);
    }

    private static String place(Map<String, ?> event) {
        Object frames = DevTools.map(event, "stackTrace").get("callFrames");
        if (!(frames instanceof List<?> list) || list.isEmpty() || !(list.get(0) instanceof Map<?, ?> first)) return "";
        return first.get("url") + ":" + (first.get("lineNumber") instanceof Number line ? line.longValue() + 1 : "");
    }

    private void thrown(Map<String, ?> details) {
        String text = DevTools.text(DevTools.map(details, "exception"), "description");
        if (text.isEmpty()) text = DevTools.text(details, "text");
        String url = DevTools.text(details, "url");
        line("error", text, url.isEmpty() ? place(details) : url + ":" + (DevTools.number(details, "lineNumber") + 1));
    }

    private void logged(Map<String, ?> entry) {
        String level = DevTools.text(entry, "level");
        String url = DevTools.text(entry, "url");
        line(
                level.equals("warning") ? "warn" : level.equals("verbose") ? "debug" : level,
                DevTools.text(entry, "text"),
                url);
    }

    private void line(String level, String text, String place) {
        if (console.size() == MOST) console.removeFirst();
        Map<String, Object> line = new LinkedHashMap<>();
        line.put("at", recorder.now());
        line.put("level", level);
        line.put("text", text.length() > LONGEST ? text.substring(0, LONGEST) + " ..." : text);
        if (!place.isEmpty()) line.put("place", place);
        console.addLast(line);
    }

    private void asked(Map<String, ?> event) {
        Map<String, ?> request = DevTools.map(event, "request");
        String id = DevTools.text(event, "requestId");
        Map<String, ?> redirect = DevTools.map(event, "redirectResponse");
        Map<String, Object> before = requests.get(id);
        if (!redirect.isEmpty() && before != null) {
            before.put("status", DevTools.number(redirect, "status"));
            requests.put(id + " before " + recorder.now(), before);
            requests.remove(id);
        }
        if (requests.size() == MOST)
            requests.remove(requests.keySet().iterator().next());
        String url = DevTools.text(request, "url");
        Map<String, Object> told = new LinkedHashMap<>();
        told.put("at", recorder.now());
        told.put("method", DevTools.text(request, "method"));
        told.put("url", url.length() > LONGEST ? url.substring(0, 200) + " ..." : url); // a picture in its own address
        told.put("type", DevTools.text(event, "type").toLowerCase(java.util.Locale.ROOT));
        requests.put(id, told);
    }

    private void answered(Map<String, ?> event) {
        Map<String, Object> told = requests.get(DevTools.text(event, "requestId"));
        if (told != null) told.put("status", DevTools.number(DevTools.map(event, "response"), "status"));
    }

    private void ended(Map<String, ?> event, String failure) {
        Map<String, Object> told = requests.get(DevTools.text(event, "requestId"));
        if (told == null) return;
        if (told.get("at") instanceof Long at) told.put("micros", recorder.now() - at);
        if (failure.isEmpty()) told.put("bytes", DevTools.number(event, "encodedDataLength"));
        else if (!told.containsKey("status")) told.put("failure", failure);
    }

    /** Forgets what was before {@code at}: it belongs to another test. */
    synchronized void forgetBefore(long at) {
        console.removeIf(line -> line.get("at") instanceof Long said && said < at);
        requests.values().removeIf(request -> request.get("at") instanceof Long asked && asked < at);
    }

    synchronized List<Map<String, Object>> console() {
        return List.copyOf(console);
    }

    synchronized List<Map<String, Object>> requests() {
        List<Map<String, Object>> copies = new ArrayList<>();
        for (Map<String, Object> request : requests.values()) copies.add(new LinkedHashMap<>(request));
        return copies;
    }
}
