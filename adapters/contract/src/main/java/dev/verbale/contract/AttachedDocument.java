package dev.verbale.contract;

import dev.verbale.MediaType;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.Map;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import tools.jackson.databind.JsonNode;

/** Attaches a document to the run when it is used for the first time, so that readers see what was promised, and what nobody called. */
final class AttachedDocument {

    /** As draft-ietf-httpapi-rest-api-mediatypes has it. */
    private static final MediaType OPENAPI = MediaType.of("application/openapi+json");

    /** A suite may read its document for each test: attached once to a recorder, by what is in it. */
    private static final Map<AdapterRecorder, Set<JsonNode>> ATTACHED =
            Collections.synchronizedMap(new WeakHashMap<>());

    private final JsonNode document;
    private final AtomicBoolean isAttached = new AtomicBoolean();

    AttachedDocument(JsonNode document) {
        this.document = document;
    }

    void attach() {
        AdapterRecorder recorder = AdapterRecorder.current();
        if (isAttached.get() || !recorder.isRecording() || !isAttached.compareAndSet(false, true)) return;
        if (!ATTACHED.computeIfAbsent(recorder, one -> ConcurrentHashMap.newKeySet())
                .add(document)) return;
        var content = new ByteArrayInputStream(document.toString().getBytes(StandardCharsets.UTF_8));
        recorder.attach(recorder.run(), name(), AttachmentKind.ATTACHMENT, content, OPENAPI, 0);
    }

    /** Such as <i>Orto 1.4.0</i>, as the document calls itself. */
    private String name() {
        JsonNode info = document.path("info");
        String name =
                info.path("title").asString("") + " " + info.path("version").asString("");
        return name.isBlank() ? "OpenAPI document" : name.strip();
    }
}
