@rota
Feature: The watering rota
  Each day has one neighbour who waters. Neighbours swap days among themselves.

  Background:
    Given the garden is open
    And these neighbours water
      | day      | neighbour |
      | Monday   | Ada       |
      | Thursday | Dario     |
      | Sunday   | Bruno     |

  @smoke
  Scenario: Two neighbours swap their days
    When "Monday" is swapped with "Thursday"
    Then Dario waters on Monday
    And Ada waters on Thursday

  Scenario: The other days stay as they are
    When "Monday" is swapped with "Thursday"
    Then Bruno waters on Sunday

  Scenario Outline: A swap of <first> with <second> is refused
    When "<first>" is swapped with "<second>"
    Then the garden says
      """
      <answer>
      """

    Examples:
      | first  | second  | answer                                    |
      | Friday | Friday  | A day cannot be swapped with itself: Friday |
      | Friday | Someday | No such day: Someday                      |
