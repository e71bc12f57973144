package dev.verbale.hub;

import java.util.Map;

/**
 * What somebody may do.
 *
 * @param token by which they may; 0 for a person whom a proxy names
 * @param label who it is, for others
 * @param isAdministrator whether they may do everything
 * @param roles what they may do in each project
 */
record Access(long token, String label, boolean isAdministrator, Map<String, Role> roles) {

    Access {
        roles = Map.copyOf(roles);
    }

    /** Who labels, reads too. */
    boolean may(Role wanted, String project) {
        if (isAdministrator) return true;
        Role role = roles.get(project);
        return role == wanted || (wanted == Role.READ && role == Role.LABEL);
    }

    /** Whether they may do anything in that project, and so may know what is known and remembered there. */
    boolean isOf(String project) {
        return isAdministrator || roles.containsKey(project);
    }
}
