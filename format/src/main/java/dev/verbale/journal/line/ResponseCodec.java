package dev.verbale.journal.line;

import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Response;

/** What came. */
final class ResponseCodec extends ObjectCodec<Response> {

    static final ResponseCodec CODEC = new ResponseCodec();

    private final NumberField status =
            number("status", "such as 201; left out of what is no HTTP", 1, Integer.MAX_VALUE, 0L);
    private final ObjectsField<Header> headers = objects("headers", "", HeaderCodec.CODEC);
    private final ObjectField<Body> body = optionalObject("body", "", BodyCodec.CODEC);

    private ResponseCodec() {
        super("response", "What came.");
    }

    @Override
    void write(JsonLine line, Response response) {
        status.write(line, response.status());
        headers.write(line, response.headers());
        body.write(line, response.body());
    }

    @Override
    Response read(Fields fields) {
        return new Response(status.readInt(fields), headers.read(fields), body.readOrNull(fields));
    }
}
