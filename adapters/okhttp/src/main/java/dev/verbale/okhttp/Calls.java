package dev.verbale.okhttp;

import dev.verbale.spi.AdapterRecorder;
import java.util.Collections;
import java.util.Map;
import java.util.WeakHashMap;
import okhttp3.Call;

/** The calls that are under way. */
final class Calls {

    private final AdapterRecorder recorder;
    // weakly: a call that is made and never executed has no end
    private final Map<Call, CallEvents> events = Collections.synchronizedMap(new WeakHashMap<>());

    Calls(AdapterRecorder recorder) {
        this.recorder = recorder;
    }

    /** On the thread that makes the call, whatever thread executes it. */
    CallEvents begun(Call call) {
        var begun = new CallEvents(recorder, recorder.currentScope());
        events.put(call, begun);
        return begun;
    }

    CallEvents of(Call call) {
        CallEvents known = events.get(call);
        return known == null ? begun(call) : known;
    }
}
