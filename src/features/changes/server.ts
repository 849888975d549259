export { carryOutPlan, startUndo } from './carryOut';
export { keepRecipe, listRecipes, type RecipeInput } from './recipes';
