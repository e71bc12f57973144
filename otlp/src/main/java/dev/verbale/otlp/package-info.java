/** A run as traces and logs for whatever collects those: {@link dev.verbale.otlp.RunTelemetry}. */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.otlp;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
