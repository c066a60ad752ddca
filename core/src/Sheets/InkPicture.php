<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** A picture on a sheet, or in what is put on one. */
final readonly class InkPicture
{
    /**
     * @param string $bytes of a JPEG or PNG file
     * @param 'image/jpeg'|'image/png' $type
     * @param array{float, float} $origin where its upper left corner lies, mm
     * @param array{float, float} $right from there to its upper right corner, mm
     * @param array{float, float} $down from there to its lower left corner, mm
     */
    public function __construct(public string $bytes, public string $type, public array $origin, public array $right, public array $down)
    {
    }

    /**
     * The same on paper.
     *
     * @param PlanOnPaper $paper of what its corners are told in
     */
    public function on(PlanOnPaper $paper): self
    {
        [[$rx, $ry], [$dx, $dy]] = [$this->right, $this->down];
        $scale = $paper->scale;

        return new self(
            $this->bytes,
            $this->type,
            $paper->of($this->origin),
            [$rx / $scale, -$ry / $scale],
            [$dx / $scale, -$dy / $scale],
        );
    }
}
