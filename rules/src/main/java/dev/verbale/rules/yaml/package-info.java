/** Files in YAML that people write, with line and column of what is wrong in them. No parameter or result is null. */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.rules.yaml;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
