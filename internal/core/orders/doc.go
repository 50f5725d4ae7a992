// Package orders is how lanes walk through their loops: a table of the orders, each with where it goes, after how many
// moves it repeats and whether a far place follows from the number of moves alone, and a Mover that goes by one of them.
package orders
