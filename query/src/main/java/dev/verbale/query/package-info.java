/**
 * Questions in SQL about runs: {@link dev.verbale.query.RunTables} fills the tables, {@link dev.verbale.query.TableReader} asks
 * them as a user who may only read.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.query;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
