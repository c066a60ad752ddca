<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** What belongs together on a sheet: its frame, or one of its views. */
final readonly class InkGroup
{
    /**
     * @param string $key id of the view; none of a frame
     * @param array{float, float, float, float}|null $clip least x and y, most x and y, mm of paper, that its ink is shown in
     * @param SheetInk $beside what stands there and is not cut off: its title
     * @param array{float, float, float, float}|null $reach how far its ink reaches, where that is known already
     */
    public function __construct(
        public SheetInk $ink,
        public string $key = '',
        public ?array $clip = null,
        public SheetInk $beside = new SheetInk(),
        private ?array $reach = null,
    ) {
    }

    public function all(): SheetInk
    {
        return $this->ink->with($this->beside);
    }

    /** @return array{float, float, float, float}|null what of it is shown reaches so far, mm of paper */
    public function bounds(): ?array
    {
        $ink = $this->clip ?? $this->reach ?? $this->ink->bounds();
        $beside = $this->beside->bounds();

        return null === $ink || null === $beside ? $ink ?? $beside : [
            min($ink[0], $beside[0]), min($ink[1], $beside[1]), max($ink[2], $beside[2]), max($ink[3], $beside[3]),
        ];
    }
}
