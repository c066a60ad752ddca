<?php

declare(strict_types=1);

namespace Plinth\Core\Roof\Exception;

use Plinth\Core\Fault\Fault;

/** A roof that cannot stand on its outline as asked, or whose own check fails: it is refused in words and never drawn wrong. */
final class UnbuildableRoof extends \RuntimeException implements Fault
{
    private function __construct(private readonly string $why, string $message)
    {
        parent::__construct($message);
    }

    public static function pitch(float $degrees, float $flattest, float $steepest): self
    {
        return new self(
            'pitch-out-of-range',
            \sprintf('A roof pitched at %.1f° is none: type %.1f° to %.0f°, or make the edge a gable.', $degrees, $flattest, $steepest),
        );
    }

    public static function outline(): self
    {
        return new self('unusable-outline', 'A roof needs an outline of three corners or more, apart from each other, each with its edge.');
    }

    public static function large(int $most): self
    {
        return new self('outline-too-large', \sprintf('The outline of one roof has %d corners at most: make two roofs of it.', $most));
    }

    public static function crossing(): self
    {
        return new self('outline-crosses', 'This outline crosses itself, or a court reaches over its edge: pull its corners apart.');
    }

    /** @param int $edge from 0 */
    public static function overhang(int $edge): self
    {
        return new self(
            'overhangs-apart',
            \sprintf('Edges %d and %d of this roof run straight on with unequal overhangs: give both the same.', max(1, $edge), $edge + 1),
        );
    }

    public static function open(): self
    {
        return new self('roof-open', 'Nothing closes this roof: where only gables are left, one more edge has to slope.');
    }

    public static function failed(): self
    {
        return new self('roof-failed', 'No roof over this outline passes its own check: change a pitch or move a corner a little.');
    }

    public function why(): string
    {
        return $this->why;
    }

    public function at(): string
    {
        return '';
    }
}
