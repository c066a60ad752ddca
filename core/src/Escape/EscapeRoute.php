<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

/** A way on foot to an exit. */
final readonly class EscapeRoute
{
    /**
     * @param float $mm along it: on stairs along their pitch
     * @param non-empty-list<array{string, array{float, float}}> $places from its beginning, each with its storey
     * @param list<float> $legs mm from each place to the next
     * @param list<string> $doors that are passed, the exit at its end with them, by id
     * @param float $narrowestMm clear width of the narrowest of them
     * @param list<string> $against those whose leaf opens against who passes
     * @param list<string> $stairs
     * @param string $exit opening at its end
     */
    public function __construct(
        public float $mm,
        public array $places,
        public array $legs,
        public array $doors,
        public float $narrowestMm,
        public array $against,
        public array $stairs,
        public string $exit,
    ) {
    }

    /** @return list<array{non-empty-list<array{float, float}>, bool}> what of it runs on a storey, and whether it begins there */
    public function on(string $storey): array
    {
        $stretches = [];
        $places = [];
        $isFirst = true;
        foreach ([...$this->places, [null, [0.0, 0.0]]] as [$on, $at]) {
            if ($on === $storey) {
                $places[] = $at;
                continue;
            }
            if (\count($places) > 1) {
                $stretches[] = [$places, $isFirst];
            }
            $places = [];
            $isFirst = false;
        }

        return $stretches;
    }
}
