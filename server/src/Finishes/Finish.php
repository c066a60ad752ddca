<?php

declare(strict_types=1);

namespace Plinth\Server\Finishes;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Plan\Model\Finish as CoreFinish;
use Plinth\Core\Plan\Model\FinishPattern;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;

/** What surfaces of the project are finished with: a colour, tiles or boards of true size; mm. */
#[Kind('finish')]
#[ORM\Entity]
class Finish extends ProjectRow
{
    #[ORM\Column(length: 120)]
    private string $name = '';

    #[ORM\Column(length: 7)]
    private string $colour = '#d8d4c8';

    #[ORM\Column(length: 6)]
    private FinishPattern $pattern = FinishPattern::Plain;

    /** of a tile; of a board across the way it runs */
    #[ORM\Column]
    private float $width = 0.0;

    /** of a tile; of a board its length, 0 without an end */
    #[ORM\Column]
    private float $height = 0.0;

    #[ORM\Column]
    private float $joint = 0.0;

    #[ORM\Column(length: 7)]
    private string $bond = 'stacked';

    public function values(): array
    {
        return [
            'name' => $this->name, 'colour' => $this->colour, 'pattern' => $this->pattern->value, 'width' => $this->width,
            'height' => $this->height, 'joint' => $this->joint, 'bond' => $this->bond,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name');
        $this->colour = $values->text('colour', 7);
        if (1 !== preg_match('/^#[0-9a-f]{6}$/', $this->colour)) {
            throw UnreadableDocument::outOfRange($values->at('colour'), '# and six digits from 0 to f');
        }
        $this->pattern = $values->choice('pattern', FinishPattern::class);
        $isPlain = FinishPattern::Plain === $this->pattern;
        $this->width = $isPlain ? 0.0 : $values->positive('width', CoreFinish::LARGEST_MM);
        $this->height = match ($this->pattern) {
            FinishPattern::Plain => 0.0,
            FinishPattern::Tiles => $values->positive('height', CoreFinish::LARGEST_MM),
            FinishPattern::Boards => min(CoreFinish::LARGEST_MM, $values->notNegative('height')),
        };
        $this->joint = $isPlain ? 0.0 : min(1000.0, $values->notNegative('joint'));
        $bond = $isPlain ? 'stacked' : $values->text('bond', 7);
        if (!\array_key_exists($bond, CoreFinish::BONDS)) {
            throw UnreadableDocument::outOfRange($values->at('bond'), 'one of '.implode(', ', array_keys(CoreFinish::BONDS)));
        }
        $this->bond = $bond;
    }

    public function finishes(): CoreFinish
    {
        return new CoreFinish(
            $this->id->toRfc4122(),
            $this->name,
            $this->colour,
            $this->pattern,
            $this->width,
            $this->height,
            $this->joint,
            $this->bond,
        );
    }
}
