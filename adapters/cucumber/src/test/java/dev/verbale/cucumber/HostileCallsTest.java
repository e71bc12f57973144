package dev.verbale.cucumber;

import dev.verbale.hostile.AdapterCallsContract;

class HostileCallsTest extends AdapterCallsContract {}
