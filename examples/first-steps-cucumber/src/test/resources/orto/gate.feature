Feature: The gate
  Who comes early waits for the gate.

  Scenario Outline: It opens in <season>
    When it is <season>
    Then the gate opens at <hour>

    Examples:
      | season | hour |
      | summer | 7    |
      | winter | 8    |

  Scenario: It closes at dusk
    Given the timetable
      | season | dusk |
      | summer | 21   |
      | winter | 17   |
    When it is winter
    Then the gate closes at 18
