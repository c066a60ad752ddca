<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Plinth\Server\Change\RowId;

/** How far a piece of long work is; the same for all of it. */
final readonly class Progress
{
    /**
     * @param JobState|null $state null where nobody has asked for it
     * @param string $basis what it was asked for: of what rows as they were then
     * @param float $part of the work that is done, 0 to 1
     * @param string $words why it failed
     * @param string $reason the same as a code
     */
    public function __construct(
        public string $kind,
        public RowId $about,
        public ?JobState $state = null,
        public string $basis = '',
        public float $part = 0.0,
        public string $words = '',
        public string $reason = '',
    ) {
    }

    public function isUnderWay(): bool
    {
        return JobState::Waiting === $this->state || JobState::Working === $this->state;
    }

    /** @return array<string, mixed> */
    public function describe(): array
    {
        return [
            'kind' => $this->kind,
            'about' => $this->about->id->toRfc4122(),
            'state' => $this->state->value ?? 'missing',
            'part' => $this->part,
            'words' => $this->words,
            'reason' => $this->reason,
        ];
    }
}
