<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;

/** From where the building was looked at, and what of it was seen: mm and degrees. */
#[Kind('savedView')]
#[ORM\Entity]
class SavedView extends ProjectRow
{
    #[ORM\Column(length: 120)]
    private string $name = '';

    /** what is looked at; where one stands, if the distance is 0 */
    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    #[ORM\Column]
    private float $z = 0.0;

    #[ORM\Column]
    private float $distance = 0.0;

    /** which way it looks, counter-clockwise from north, and how far down */
    #[ORM\Column]
    private float $turn = 0.0;

    #[ORM\Column]
    private float $tilt = 0.0;

    #[ORM\Column(length: 7)]
    private CutWay $cut = CutWay::None;

    /** of a level cut the height, mm; of an upright one how far through the building it lies, 0 to 1 */
    #[ORM\Column]
    private float $cutAt = 0.0;

    #[ORM\Column]
    private float $cutTurn = 0.0;

    /** names of what is left out, and ids of storeys that are, by semicolons */
    #[ORM\Column(name: 'left_out', length: 1000)]
    private string $without = '';

    public function values(): array
    {
        return [
            'name' => $this->name, 'x' => $this->x, 'y' => $this->y, 'z' => $this->z, 'distance' => $this->distance, 'turn' => $this->turn,
            'tilt' => $this->tilt, 'cut' => $this->cut->value, 'cutAt' => $this->cutAt, 'cutTurn' => $this->cutTurn,
            'without' => $this->without,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name');
        [$this->x, $this->y, $this->z] = [$values->place('x'), $values->place('y'), $values->place('z')];
        $this->distance = $values->notNegative('distance');
        $this->turn = $values->number('turn');
        $this->tilt = $values->number('tilt');
        if (abs($this->tilt) > 90.0) {
            throw UnreadableDocument::outOfRange($values->at('tilt'), 'between −90° and 90°');
        }
        $this->cut = $values->choice('cut', CutWay::class);
        $this->cutAt = $values->number('cutAt');
        $this->cutTurn = $values->number('cutTurn');
        $this->without = $values->text('without', 1000);
    }
}
