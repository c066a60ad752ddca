<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

/** A value that names another row of the project, and what becomes of this row when that one goes. */
#[\Attribute(\Attribute::TARGET_PROPERTY)]
final readonly class Refers
{
    public string $field;

    /**
     * @param class-string<ProjectRow> $to
     * @param bool $alone whether the one that is named goes when nothing names it any more
     */
    public function __construct(public string $to, public WhenGone $then = WhenGone::Holds, public bool $alone = false, string $field = '')
    {
        $this->field = $field;
    }

    public function of(string $field): self
    {
        return new self($this->to, $this->then, $this->alone, $field);
    }
}
