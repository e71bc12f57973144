package dev.verbale.journal.line;

import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Request;

/** What was sent. */
final class RequestCodec extends ObjectCodec<Request> {

    static final RequestCodec CODEC = new RequestCodec();

    private final TextField method = text("method", "such as `GET`; of what is no HTTP, a word of its own");
    private final TextField url = text("url", "");
    private final ObjectsField<Header> headers = objects("headers", "", HeaderCodec.CODEC);
    private final ObjectField<Body> body = optionalObject("body", "", BodyCodec.CODEC);

    private RequestCodec() {
        super("request", "What was sent.");
    }

    @Override
    void write(JsonLine line, Request request) {
        method.write(line, request.method());
        url.write(line, request.url());
        headers.write(line, request.headers());
        body.write(line, request.body());
    }

    @Override
    Request read(Fields fields) {
        return new Request(method.read(fields), url.read(fields), headers.read(fields), body.readOrNull(fields));
    }
}
