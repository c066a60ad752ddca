<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Ifc\Internal;

use Plinth\Core\Exchange\Ifc\GlobalId;

/**
 * Property sets and quantities of things.
 *
 * @internal
 */
final readonly class Properties
{
    public function __construct(private StepFile $step, private string $project)
    {
    }

    /**
     * @param non-empty-list<string> $things
     * @param string $of id that names it for good
     * @param array<string, string|bool> $values by name of the property; none make no set
     */
    public function set(array $things, string $of, string $name, array $values): void
    {
        if ([] === $values) {
            return;
        }
        $properties = [];
        foreach ($values as $property => $value) {
            $told = \is_bool($value) ? 'IFCBOOLEAN('.($value ? '.T.' : '.F.').')' : 'IFCLABEL('.StepFile::text($value).')';
            $properties[] = $this->step->add('IFCPROPERTYSINGLEVALUE', "'$property'", '$', $told, '$');
        }
        $set = $this->step->add('IFCPROPERTYSET', $this->id($name, $of), '$', "'$name'", '$', StepFile::list($properties));
        $this->step->add('IFCRELDEFINESBYPROPERTIES', $this->id("has $name", $of), '$', '$', '$', StepFile::list($things), $set);
    }

    /**
     * @param array<string, array{'length'|'area'|'volume', float}> $values mm, m², m³
     * @param string $method of measurement
     */
    public function quantities(string $thing, string $of, string $name, array $values, string $method = ''): void
    {
        $quantities = [];
        foreach ($values as $quantity => [$kind, $value]) {
            $entity = ['length' => 'IFCQUANTITYLENGTH', 'area' => 'IFCQUANTITYAREA', 'volume' => 'IFCQUANTITYVOLUME'][$kind];
            $quantities[] = $this->step->add($entity, "'$quantity'", '$', '$', StepFile::real($value), '$');
        }
        $by = '' === $method ? '$' : StepFile::text($method);
        $set = $this->step->add('IFCELEMENTQUANTITY', $this->id($name, $of), '$', "'$name'", '$', $by, StepFile::list($quantities));
        $this->step->add('IFCRELDEFINESBYPROPERTIES', $this->id("has $name", $of), '$', '$', '$', "($thing)", $set);
    }

    private function id(string ...$parts): string
    {
        return "'".GlobalId::of($this->project, ...$parts)."'";
    }
}
