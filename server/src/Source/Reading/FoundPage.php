<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

/** One page of a file as its head describes it. */
final readonly class FoundPage
{
    /**
     * @param int $width pixels of the page shown upright
     * @param float|null $resolution pixels per inch of paper
     * @param string $remark what the user should know of it at once
     */
    public function __construct(
        public int $width,
        public int $height,
        public ?float $resolution,
        public string $remark = '',
        public ?PageHint $hint = null,
    ) {
    }

    public function with(?PageHint $hint, string $remark): self
    {
        return new self($this->width, $this->height, $this->resolution, trim($this->remark.' '.$remark), $hint ?? $this->hint);
    }
}
